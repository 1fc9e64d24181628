import type { Ref } from 'vue'
import {
  renamedBranch,
  stepsInOrder,
  wayName,
  withoutVersion,
  type Branch,
  type MailStep,
  type NewStep,
  type Step,
} from '~~/core/sequences'
import { withOneMore } from '~/components/sequences/shares'
import type { OpenSequence } from './sequence'

/** The mails of the sequence that is open: each step has a letter of its own, and one for each version that is tried. */
export function sequenceMails(
  sequence: Readonly<Ref<OpenSequence | null>>,
  changeStep: (id: string, step: Step) => Promise<void>,
  undo: () => Promise<void>,
) {
  async function newMail(): Promise<NewStep | null> {
    const mailingId = await newLetter()
    return mailingId === null ? null : { kind: 'mail', mailingId }
  }

  /** The same mail with letters of its own, of each version; null where one of them could not be made. */
  async function copyOfMail(step: MailStep, nth = 1): Promise<NewStep | null> {
    const mailingId = await newLetter(step.mailingId, 0, nth)
    if (mailingId === null) return null
    const versions = []
    for (const [n, { mailingId: of, share }] of (step.versions ?? []).entries()) {
      const copy = await newLetter(of, n + 1, nth)
      if (copy === null) return null
      versions.push({ mailingId: copy, share })
    }
    return { ...step, mailingId, ...(versions.length && { versions }) }
  }

  /** The same steps under names of their own, each mail with letters of its own; null where one could not be made. */
  async function copyOfBranch(branch: Branch): Promise<Branch | null> {
    const copy = renamedBranch(branch, () => crypto.randomUUID())
    const steps: Record<string, Step> = { ...copy.steps }
    let nth = 0
    for (const [id, step] of Object.entries(steps)) {
      if (step.kind !== 'mail') continue
      const own = await copyOfMail(step, ++nth)
      if (!own) return null
      steps[id] = { ...step, ...own } as Step
    }
    return { id: copy.id, steps }
  }

  /**
   * A mailing of the sequence’s own with a letter to begin with, a fresh one or that of another; the `nth` of those that are
   * put in together. Null: it could not be made.
   */
  async function newLetter(copyOf?: number, version = 0, nth = 1): Promise<number | null> {
    const { id, name, map } = sequence.value!
    const many = stepsInOrder(map).filter(({ step }) => step.kind === 'mail').length
    const named = version ? `version ${wayName(version)}` : `mail ${many + nth}`
    const body = { name: `${name.slice(0, 90)}, ${named}`, copyOf }
    return (await act<{ id: number }>(`/api/sequences/${id}/mails`, 'POST', body))?.id ?? null
  }

  /** One more version of a mail is tried: a copy of its letter. */
  async function addVersion(id: string) {
    const of = sequence.value!.id
    const before = mailOf(id)
    if (!before) return
    const mailingId = await newLetter(before.mailingId, (before.versions?.length ?? 0) + 1)
    const step = mailOf(id)
    if (!mailingId || sequence.value?.id !== of || !step) return
    const versions = withOneMore(step.versions ?? [], { mailingId })
    await changeStep(id, { ...step, versions })
  }

  /** A version is tried no more. Its letter is kept until the map is published, so that this can be undone. */
  async function removeVersion(id: string, which: number) {
    const step = mailOf(id)
    if (!step) return
    await changeStep(id, withoutVersion(step, which))
    useNotices().say('The version is removed.', { label: 'Undo', run: undo })
  }

  function mailOf(id: string): MailStep | null {
    const step = sequence.value?.map.steps[id]
    return step?.kind === 'mail' ? step : null
  }

  return { newMail, copyOfBranch, addVersion, removeVersion }
}
