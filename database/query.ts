import {
  DummyDriver,
  Kysely,
  SqliteAdapter,
  SqliteIntrospector,
  SqliteQueryCompiler,
  ValueNode,
  type Compilable,
  type LimitNode,
  type RawBuilder,
} from 'kysely'
import type Sqlite from 'better-sqlite3'
import type { Schema } from './schema'

/** An open database. Every call on it is synchronous, so a transaction never waits on anything. */
export interface Database {
  sqlite: Sqlite.Database
  statements: Map<string, Sqlite.Statement>
}

/**
 * Writes a limit as a number into the statement. As a value that is bound later, SQLite plans the statement anew whenever it
 * is run, which takes several times as long as finding a row.
 */
class Compiler extends SqliteQueryCompiler {
  protected override visitLimit(node: LimitNode) {
    const { limit } = node
    if (ValueNode.is(limit) && Number.isSafeInteger(limit.value))
      this.append(`limit ${String(limit.value)}`)
    else super.visitLimit(node)
  }
}

/**
 * Builds queries and does not run them: Kysely gives the types and the SQL, the functions below
 * run them. So a transaction is a plain function and can't be left open across an `await`.
 * @example all(db, q.selectFrom('lists').select(['id', 'name']).orderBy('name'))
 */
export const q = new Kysely<Schema>({
  dialect: {
    createAdapter: () => new SqliteAdapter(),
    createDriver: () => new DummyDriver(),
    createIntrospector: (db) => new SqliteIntrospector(db),
    createQueryCompiler: () => new Compiler(),
  },
})

/** A query written with Kysely's `sql`, for what its builder has no words for. */
export function raw<O>(query: RawBuilder<O>): Compilable<O> {
  return { compile: () => query.compile(q) }
}

/** Every row of a query. */
export function all<O>(db: Database, query: Compilable<O>): O[] {
  const { sql, parameters } = query.compile()
  return statement(db, sql).all(...(parameters as unknown[])) as O[]
}

/** Every row of a query one after the other, for more of them than should be held at once. Meanwhile nothing is written. */
export function each<O>(db: Database, query: Compilable<O>): IterableIterator<O> {
  const { sql, parameters } = query.compile()
  // Its own statement: a kept one could be asked again before it has come to its end.
  return db.sqlite.prepare(sql).iterate(...(parameters as unknown[])) as IterableIterator<O>
}

/** The first row of a query, or undefined. */
export function one<O>(db: Database, query: Compilable<O>): O | undefined {
  const { sql, parameters } = query.compile()
  return statement(db, sql).get(...(parameters as unknown[])) as O | undefined
}

/** The earliest time that any of several queries gives as `due`; null where none gives one. */
export function soonest(
  db: Database,
  queries: readonly Compilable<{ due: number | null }>[],
): number | null {
  const dues = queries.flatMap((query) => one(db, query)?.due ?? [])
  return dues.length ? Math.min(...dues) : null
}

/** Runs a change; how many rows it changed and the id of the last it inserted. */
export function run(db: Database, query: Compilable<unknown>): { changes: number; id: number } {
  const { sql, parameters } = query.compile()
  const { changes, lastInsertRowid } = statement(db, sql).run(...(parameters as unknown[]))
  return { changes, id: Number(lastInsertRowid) }
}

/** Runs `work` in a transaction that writes: all of it or nothing. Nested calls join the outer one. */
export function transact<T>(db: Database, work: () => T): T {
  return db.sqlite.inTransaction ? work() : db.sqlite.transaction(work).immediate()
}

/** A query compiled once, for the paths that run it thousands of times a second. */
export interface Prepared<P, O> {
  all(values: P): O[]
  one(values: P): O | undefined
  run(values: P): number
}

/**
 * Compiles a query once. `build` gets a function that stands for a value given later, by name.
 * @example prepared<{ id: number }, Row>(db, (value) => q.selectFrom('people').selectAll().where('id', '=', value('id')))
 */
export function prepared<P extends object, O = unknown>(
  db: Database,
  build: (value: (name: keyof P & string) => never) => Compilable<O>,
): Prepared<P, O> {
  const names = new Map<object, keyof P>()
  const { sql, parameters } = build((name) => {
    const token = { later: name }
    names.set(token, name)
    return token as never
  }).compile()
  const read = parameters.map((parameter) => {
    const name = names.get(parameter as object)
    return name === undefined ? () => parameter : (values: P) => values[name]
  })
  const compiled = statement(db, sql)
  const bind = (values: P) => {
    const bound = new Array<unknown>(read.length)
    for (let i = 0; i < bound.length; i++) bound[i] = read[i]!(values)
    return bound
  }
  return {
    all: (values) => compiled.all(...bind(values)) as O[],
    one: (values) => compiled.get(...bind(values)) as O | undefined,
    run: (values) => compiled.run(...bind(values)).changes,
  }
}

/** The same for a function that is given the database each time: compiled once for each. */
export function preparedOnce<P extends object, O = unknown>(
  build: (value: (name: keyof P & string) => never) => Compilable<O>,
): (db: Database) => Prepared<P, O> {
  const known = new WeakMap<Database, Prepared<P, O>>()
  return (db) => {
    let found = known.get(db)
    if (!found) known.set(db, (found = prepared(db, build)))
    return found
  }
}

/** Rows of one statement: what a turn of the event loop brings, and far below SQLite's 32,766 values. */
const ROWS_AT_A_TIME = 100

/**
 * Writes many rows by few statements, all of them or none; a statement is compiled once for each number of rows.
 * @example const write = rowsInserter(db, 'acts', ['kind', 'at']); write([['open', 1], ['click', 2]])
 */
export function rowsInserter<T extends keyof Schema & string>(
  db: Database,
  table: T,
  columns: readonly (keyof Schema[T] & string)[],
): (rows: readonly (readonly (string | number | null)[])[]) => void {
  const compiled: Sqlite.Statement[] = []
  const insertOf = (rows: number) =>
    (compiled[rows] ??= db.sqlite.prepare(
      q
        .insertInto(table)
        .columns(columns as never)
        .values(
          Array.from({ length: rows }, () =>
            Object.fromEntries(columns.map((column) => [column, null])),
          ) as never,
        )
        .compile().sql,
    ))
  return (rows) => {
    const write = (some: typeof rows) => insertOf(some.length).run(...some.flat())
    if (rows.length === 0) return
    if (rows.length <= ROWS_AT_A_TIME) return void write(rows)
    transact(db, () => {
      for (let from = 0; from < rows.length; from += ROWS_AT_A_TIME)
        write(rows.slice(from, from + ROWS_AT_A_TIME))
    })
  }
}

function statement(db: Database, sql: string): Sqlite.Statement {
  let found = db.statements.get(sql)
  if (!found) {
    if (db.statements.size > 400) db.statements.clear()
    found = db.sqlite.prepare(sql)
    db.statements.set(sql, found)
  }
  return found
}
