import { existsSync, readFileSync } from 'node:fs'

/** A form of Satchel that the practice site carries. */
export interface SiteForm {
  key: string
  /** `hosted`: on a page of its own, that others link to. */
  kind: 'in-page' | 'hosted'
  /** On which of the site's pages it stands; `*`: at the foot of every other one. */
  pages: string[]
}

/** What the site's owner pasted into its pages: the one line of this address, and where each form stands. */
export interface SiteForms {
  satchel: string
  forms: SiteForm[]
}

/** What the practice site carries, as a file says; null where there is none, and nobody visits it for its forms. */
export function readSiteForms(file: string | null, satchel: string): SiteForms | null {
  if (!file || !satchel || !existsSync(file)) return null
  return { satchel, forms: JSON.parse(readFileSync(file, 'utf8')) as SiteForm[] }
}

/** The form on a page of the site. */
export const formOn = ({ forms }: SiteForms, page: string): SiteForm | undefined =>
  forms.find(({ pages }) => pages.includes(page)) ?? forms.find(({ pages }) => pages.includes('*'))
