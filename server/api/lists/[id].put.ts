import { changeList, listVersion } from '~~/database/people'
import { listChangeInput } from '~~/shared/people-inputs'

/** Changes what a list is called, over the version its editor saw. */
export default defineEventHandler(async (event) => {
  const { publicName, publicAbout, publicOften, offered, language, version, ...rest } =
    await readInput(event, listChangeInput)
  const { db } = satchel()
  const id = idOf(event)
  const now = listVersion(db, id)
  if (now === undefined) throw notFound('This list is not on file.')
  if (now !== version)
    throw overtaken('Somebody else changed this list meanwhile. Look at theirs first.')
  const change = {
    ...rest,
    public_name: publicName,
    public_about: publicAbout,
    public_often: publicOften,
    offered: Number(offered),
    language,
  }
  changeList(db, id, change)
  return { ...change, version: listVersion(db, id)! }
})
