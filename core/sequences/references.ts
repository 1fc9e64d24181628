import { startKinds } from './starts'
import { actRefers } from './steps/do'

/** What of an account a map names by number. */
export type Referred = 'list' | 'tag' | 'segment' | 'sequence' | 'mailing' | 'signUp'

/** How each part of a map that is one account's own is changed, where it stands. */
export interface Elsewhere {
  /** The number of something: null stands for whatever it is, 0 for nothing chosen. */
  reference: (what: Referred, given: unknown) => unknown
  rule: (given: unknown) => unknown
  /** What a step of mail holds besides where it leads. */
  mail: (step: Json, id: string) => Json
}

type Json = Record<string, unknown>

/**
 * A map as JSON with everything changed in it that is one account's own: numbers of what is on file, rules, mails. It need
 * not be a map that can be read: what is odd stays as it is.
 */
export function elsewhere(map: Json, change: Elsewhere): Json {
  const { start, steps } = map
  return {
    ...map,
    start: isObject(start) ? changedStart(start, change) : start,
    steps: isObject(steps)
      ? Object.fromEntries(
          Object.entries(steps).map(([id, step]) => [
            id,
            isObject(step) ? changedStep(step, id, change) : step,
          ]),
        )
      : steps,
  }
}

function changedStart(start: Json, change: Elsewhere): Json {
  const { by, rule, out } = start
  return {
    ...start,
    by: Array.isArray(by)
      ? by.map((one: unknown) => (isObject(one) ? referring(one, startRefers, change) : one))
      : by,
    ...(rule == null ? {} : { rule: change.rule(rule) }),
    ...(out == null ? {} : { out: change.rule(out) }),
  }
}

function changedStep(step: Json, id: string, change: Elsewhere): Json {
  const happening = (given: unknown): unknown =>
    isObject(given) && given.is === 'fits' ? { ...given, rule: change.rule(given.rule) } : given
  switch (step.kind) {
    case 'mail':
      return change.mail(step, id)
    case 'fork':
      return {
        ...step,
        ways: Array.isArray(step.ways)
          ? step.ways.map((way: unknown) =>
              isObject(way) ? { ...way, when: happening(way.when) } : way,
            )
          : step.ways,
      }
    case 'wait':
      return isObject(step.until)
        ? { ...step, until: { ...step.until, what: happening(step.until.what) } }
        : step
    case 'goal':
      return { ...step, when: happening(step.when) }
    case 'do':
      return {
        ...step,
        acts: Array.isArray(step.acts)
          ? step.acts.map((act: unknown) =>
              isObject(act) ? referring(act, actRefers, change) : act,
            )
          : step.acts,
      }
    default:
      return step
  }
}

const startRefers: Refers = Object.fromEntries(
  Object.entries(startKinds).map(([is, { refers }]) => [is, refers]),
)

type Refers = { readonly [is in string]?: readonly [key: string, what: Referred] }

function referring(one: Json, refers: Refers, { reference }: Elsewhere): Json {
  const found = typeof one.is === 'string' && Object.hasOwn(refers, one.is) ? refers[one.is] : null
  return found ? { ...one, [found[0]]: reference(found[1], one[found[0]]) } : one
}

const isObject = (json: unknown): json is Json =>
  typeof json === 'object' && json !== null && !Array.isArray(json)
