import { ValidationError, type AnyObject, type ObjectSchema } from 'yup'

/** A form on the schema its request has: checked in the page first, then by the server, faults under their fields. */
export function useForm<T extends Record<string, unknown>>(
  schema: ObjectSchema<AnyObject>,
  values: T,
) {
  const form = reactive({ ...values }) as T
  const faults = ref<Record<string, string>>({})
  const busy = ref(false)
  /** Sends the form by `send`; whether it was taken. */
  async function submit(send: (values: T) => Promise<unknown>): Promise<boolean> {
    faults.value = {}
    busy.value = true
    try {
      await send((await schema.validate({ ...form }, { abortEarly: false })) as T)
      return true
    } catch (error) {
      if (error instanceof ValidationError)
        faults.value = Object.fromEntries(
          error.inner.map((one) => [one.path ?? '', one.errors[0]!]),
        )
      else {
        const problem = problemOf(error)
        faults.value = Object.keys(problem.fields).length
          ? problem.fields
          : { form: problem.message }
      }
      return false
    } finally {
      busy.value = false
    }
  }
  return { form, faults, busy, submit }
}
