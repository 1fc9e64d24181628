import { cleanDocument, withStamps, type Letter } from '../../core/letters'
import type { Author } from './history'
import { all, one, q, run, type Database } from '../query'
import { stampContents } from './stamps'
import type { OwnTemplate } from '../../core/letters'

/** The account's own templates, the latest first. */
export function ownTemplates(db: Database): OwnTemplate[] {
  const rows = all(
    db,
    q
      .selectFrom('own_templates')
      .select(['id', 'name', 'about', 'by_name', 'created_at'])
      .where('deleted_at', 'is', null)
      .orderBy('id', 'desc'),
  )
  return rows.map(({ by_name, created_at, ...row }) => ({
    ...row,
    byName: by_name,
    at: created_at,
  }))
}

/** The letter of an own template, its stamps as they are now. */
export function ownTemplateLetter(db: Database, id: number): Letter | undefined {
  const row = one(
    db,
    q
      .selectFrom('own_templates')
      .select(['subject', 'preview_text', 'document'])
      .where('id', '=', id)
      .where('deleted_at', 'is', null),
  )
  const document = row && cleanDocument(JSON.parse(row.document))
  if (!document) return undefined
  return {
    subject: row.subject,
    previewText: row.preview_text,
    document: withStamps(document, stampContents(db)),
  }
}

export function ownTemplateName(db: Database, id: number): string | undefined {
  return one(db, q.selectFrom('own_templates').select('name').where('id', '=', id))?.name
}

export function keepTemplate(
  db: Database,
  { name, about }: { name: string; about: string },
  { subject, previewText, document }: Letter,
  by: Author,
  now: number,
): number {
  const template = {
    ...{ name, about, subject, preview_text: previewText, document: JSON.stringify(document) },
    created_at: now,
    by_name: by.name,
  }
  return run(db, q.insertInto('own_templates').values(template)).id
}

/** Takes a template away, or gives it back. Letters made from it stay as they are. */
export function setTemplateDeleted(db: Database, id: number, at: number | null): boolean {
  const change = q.updateTable('own_templates').set({ deleted_at: at }).where('id', '=', id)
  return run(db, change).changes === 1
}
