import { basename, dirname, join } from 'node:path'
import {
  unpackLetter,
  type CompiledLetter,
  type LetterFrame,
  type PackedLetter,
} from '../../core/letters/rendering'
import type { Letter } from '../../core/letters'
import { answerer } from '../apart/answerer'

/** A letter takes well under a second; one that takes so much of the processor is not made at all, ms. */
const LONGEST = 15_000

const compiling = answerer({
  entry: () => processFile('compiler'),
  longest: LONGEST,
  tooLong: 'It takes too long to make. Make the letter shorter, or leave out its HTML.',
  memory: 512,
})

/** Makes a letter ready to be merged, in a process of its own with a limit of time and memory. Throws where it can't be made. */
export async function compileApart(letter: Letter, frame: LetterFrame): Promise<CompiledLetter> {
  return unpackLetter((await compiling.ask({ letter, frame })) as PackedLetter)
}

export const startCompiling = compiling.start

/** The file of a process of the build: beside the engine's, or beside the web process's folder. */
export function processFile(name: string): string {
  const here = dirname(process.argv[1]!)
  const folder = basename(here) === 'processes' ? here : join(here, '..', 'processes')
  return join(folder, `${name}.mjs`)
}
