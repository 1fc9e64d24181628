import { sql } from 'kysely'
import { FIRST_PRODUCT_LINK, type LetterDocument } from '../../core/letters'
import { picksContext, picksIn, type PickedProduct } from '../../core/letters/rendering'
import { neighboursOf, pickProducts, type Neighbours, type Product } from '../../core/picks'
import { DAY } from '../../core/time'
import { readAccount } from '../account'
import { beganBy, roundKey, type BeganBy, type Round } from '../people'
import { all, q, type Database } from '../query'

/** What was sold in this time says what sells best. */
const LATELY = 180 * DAY
/** So many of a reader's latest looks are gone by. */
const LOOKS = 12
/** A mailing's products, so that each has a link of its own. */
const MOST_PRODUCTS = 5_000

/** Picks products for readers, for one letter. */
export interface Picker {
  /** The products that may be picked, with where they lead: links of the mailing. */
  links: { no: number; url: string; words: string }[]
  /** For each of these people, what their fill-ins say, under their `roundKey`. */
  pickFor: (rounds: readonly Round[]) => Map<string, Record<string, PickedProduct>>
}

/**
 * The picker of a letter as things stand now, of a sequence's mail where it is one; null where it has no picked products. Our
 * own pictures are under `url`.
 */
export function pickerFor(
  db: Database,
  document: LetterDocument,
  url: string,
  now: number,
  sequenceId: number | null = null,
): Picker | null {
  const blocks = picksIn(document)
  if (!blocks.length) return null
  const products = sellable(db, now)
  const byId = new Map(products.map((product) => [product.id, product]))
  const neighbours = blocks.some(({ by }) => by === 'together' || by === 'began')
    ? boughtTogether(db)
    : noNeighbours
  const money = new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency: readAccount(db)?.currency ?? 'GBP',
  })
  const shown = (product: SellableProduct): PickedProduct => ({
    name: product.name,
    price: money.format(product.price / 100),
    picture: product.picture.startsWith('/') ? `${url}${product.picture}-400` : product.picture,
    url: product.url,
    link: FIRST_PRODUCT_LINK + product.id,
  })
  return {
    links: products.map(({ id, url: leadsTo, name }) => ({
      no: FIRST_PRODUCT_LINK + id,
      url: leadsTo,
      words: name,
    })),
    pickFor(rounds) {
      const facts = readerFacts(
        db,
        rounds.map(({ person_id }) => person_id),
      )
      const asksBegan = blocks.some(({ by }) => by === 'began')
      const events = beganBy(db, asksBegan ? sequenceId : null, rounds)
      return new Map(
        rounds.map((round) => {
          const did = facts.get(round.person_id) ?? { viewed: [], bought: [] }
          const event = events.get(roundKey(round))
          const reader = { ...did, began: event ? productsIn(db, event) : [] }
          const picked = blocks.map((block) => {
            const chosen = pickProducts(reader, products, neighbours, block)
            return [block.id, chosen.map((product) => shown(byId.get(product)!))] as const
          })
          return [roundKey(round), picksContext(new Map(picked))]
        }),
      )
    },
  }
}

/** How many products each block of picked products can choose from, by its id. */
export function picksOffered(db: Database, document: LetterDocument, now: number) {
  const blocks = picksIn(document)
  if (!blocks.length) return new Map<string, number>()
  const products = sellable(db, now)
  const reader = { viewed: [], bought: [] }
  return new Map(
    blocks.map((block) => [
      block.id,
      pickProducts(reader, products, noNeighbours, { ...block, many: products.length }).length,
    ]),
  )
}

/** The categories of the products there are, each once. */
export function productCategories(db: Database): string[] {
  return all(db, q.selectFrom('products').select('category').distinct().orderBy('category')).map(
    ({ category }) => category,
  )
}

const noNeighbours: Neighbours = new Map()
type SellableProduct = Product & { name: string; url: string; picture: string }

/** Products of which one knows where they are found and how they look. */
function sellable(db: Database, now: number): SellableProduct[] {
  const sold = q
    .selectFrom('order_items')
    .innerJoin('orders', 'orders.id', 'order_items.order_id')
    .select(['product_id', sql<number>`sum(quantity)`.as('sold')])
    .where('orders.at', '>', now - LATELY)
    .groupBy('product_id')
    .as('s')
  return all(
    db,
    q
      .selectFrom('products as p')
      .leftJoin(sold, 's.product_id', 'p.id')
      .select([
        'p.id',
        'name',
        'category',
        'price',
        'stock',
        'created_at',
        'url',
        'picture',
        's.sold',
      ])
      .where('url', 'is not', null)
      .where('picture', 'is not', null)
      .orderBy('p.id')
      .limit(MOST_PRODUCTS),
  ).map(({ created_at, sold: many, url, picture, ...product }) => ({
    ...product,
    createdAt: created_at,
    sold: many ?? 0,
    url: url!,
    picture: picture!,
  }))
}

/** What people bought, each product once, as the orders are on file. */
function boughtTogether(db: Database): Neighbours {
  const rows = all(
    db,
    q
      .selectFrom('orders')
      .innerJoin('order_items', 'order_items.order_id', 'orders.id')
      .select(['person_id', sql<string>`group_concat(distinct product_id)`.as('products')])
      .groupBy('person_id')
      .having(sql`count(distinct product_id)`, '>', 1),
  )
  return neighboursOf(rows.map(({ products }) => products.split(',').map(Number)))
}

function readerFacts(db: Database, ids: readonly number[]) {
  const facts = new Map(ids.map((id) => [id, { viewed: [] as number[], bought: [] as number[] }]))
  const within = JSON.stringify(ids)
  const people = sql<number>`(select value from json_each(${within}))`
  const bought = all(
    db,
    q
      .selectFrom('orders')
      .innerJoin('order_items', 'order_items.order_id', 'orders.id')
      .select(['person_id', 'product_id'])
      .where('person_id', 'in', people)
      .orderBy('at', 'desc'),
  )
  for (const { person_id, product_id } of bought) facts.get(person_id)!.bought.push(product_id)
  const looks = all(
    db,
    q
      .selectFrom('events')
      .select(['person_id', 'props'])
      .where('person_id', 'in', people)
      .where('name', 'in', ['page view', 'basket'])
      .orderBy('at', 'desc'),
  )
  const numbers = productNumbers(db)
  for (const { person_id, props } of looks) {
    const { viewed } = facts.get(person_id)!
    const product = numbers.get(productOf(props))
    if (product !== undefined && viewed.length < LOOKS && !viewed.includes(product))
      viewed.push(product)
  }
  return facts
}

/** The products that an event names: one (`product`), or several with commas between (`products`), each once. */
function productsIn(db: Database, { props }: BeganBy): number[] {
  const said = [props.product, props.products].filter((one) => typeof one === 'string')
  const numbers = productNumbers(db)
  const keys = said.flatMap((one) => one.split(',').map((key) => key.trim()))
  return [...new Set(keys)].flatMap((key) => numbers.get(key) ?? [])
}

/** The key of the product that an event is about: said outright, or at the end of the page's path. */
function productOf(props: string): string {
  const { product, page } = JSON.parse(props) as { product?: unknown; page?: unknown }
  if (typeof product === 'string') return product
  return typeof page === 'string' ? (page.split(/[?#]/)[0]!.split('/').at(-1) ?? '') : ''
}

const known = new WeakMap<Database, { most: number; numbers: Map<string, number> }>()
/** Products by key, read again when there are more. */
function productNumbers(db: Database): Map<string, number> {
  const most =
    all(
      db,
      q.selectFrom('products').select((eb) => eb.fn.max('id').as('most')),
    )[0]?.most ?? 0
  const before = known.get(db)
  if (before?.most === most) return before.numbers
  const rows = all(db, q.selectFrom('products').select(['id', 'key']))
  const numbers = new Map(rows.map(({ id, key }) => [key, id]))
  known.set(db, { most, numbers })
  return numbers
}
