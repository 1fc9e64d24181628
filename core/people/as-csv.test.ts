import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { strToU8, zipSync } from 'fflate'
import { expect, test } from 'vitest'
import { fileAsCsv, pastedAsCsv } from './as-csv'
import { exportColumns, exportWriter } from './export'
import { understandFile } from './file'
import { rowsOfPasted } from './pasted'
import { interpretRow } from './rows'
import { rowsOfVcards } from './vcards'

test('what an address book pastes: names before, behind and around the addresses', () => {
  const text = readFileSync(new URL('../../demo/files/pasted.txt', import.meta.url), 'utf8')
  expect(rowsOfPasted(text)).toEqual([
    ['Address', 'Name'],
    ['tamsin@harbourmail.example', 'Tamsin Aldergate'],
    ['bram@inkpost.example', 'Prynne-Marsh, Bram'],
    ['ivo@oldmill.example', ''],
    ['noor@workdesk.example', 'Noor Castellane'],
    ['PELL@HARBOURMAIL.EXAMPLE', ''],
    ['pell@harbourmail.example', ''],
    ['not-an-address', ''],
    ['sunniva@veilpost.example', ''],
  ])
})

test('pasted people are understood as people', () => {
  const csv = pastedAsCsv(
    '"Prynne-Marsh, Bram" <bram@inkpost.example>\nTove Wetherlam <tove@inkpost.example>\nnobody\n',
  )
  const bytes = new TextEncoder().encode(csv)
  const file = understandFile(bytes, bytes.length, { fields: [], lists: [] })
  if ('problem' in file) throw new Error(file.message)
  expect(file.plans.map(({ target }) => target.to)).toEqual(['address', 'whole-name'])
  const read = file.rows.map((row) => interpretRow(row, file.plans, new Map()))
  expect(read).toMatchObject([
    { ok: true, entry: { values: { first_name: 'Bram', last_name: 'Prynne-Marsh' } } },
    { ok: true, entry: { values: { first_name: 'Tove', last_name: 'Wetherlam' } } },
    { ok: false, reason: 'This is not an address: it has no @.' },
  ])
})

test('a table with a header is pasted as the table it is', () => {
  const table = [
    ['Town', 'Mail', 'First name'],
    ['Orrin', 'tove@inkpost.example', 'Tove'],
    ['', 'ivo@oldmill.example', 'Ivo'],
  ]
  for (const tab of ['\t', ';', ','])
    expect(rowsOfPasted(table.map((row) => row.join(tab)).join('\n'))).toEqual(table)
})

test('addresses in a row, with or without a comma at the end', () => {
  expect(rowsOfPasted('a@x.example, b@x.example;c@x.example,')).toEqual([
    ['Address', 'Name'],
    ['a@x.example', ''],
    ['b@x.example', ''],
    ['c@x.example', ''],
  ])
  expect(rowsOfPasted(' \n\n ')).toEqual([])
  expect(pastedAsCsv('')).toBe('')
})

test('every address that is pasted is found again, however it is dressed', () => {
  const local = fc.stringMatching(/^[a-z][a-z0-9.+]{0,8}[a-z0-9]$/)
  const name = fc.constantFrom('Tove Wetherlam', '"Marsh, Bram"', 'Ümit', '')
  const dress = fc.constantFrom('brackets', 'tab', 'bare')
  fc.assert(
    fc.property(
      fc.array(fc.tuple(local, name, dress), { minLength: 1, maxLength: 8 }),
      fc.constantFrom('\n', '\r\n'),
      (people, end) => {
        const text = people
          .map(([local, name, dress]) => {
            const address = `${local}@inkpost.example`
            if (dress === 'brackets') return `${name} <${address}>`
            return dress === 'tab' && name ? `${address}\t${name}` : address
          })
          .join(end)
        expect(
          rowsOfPasted(text)
            .slice(1)
            .map(([address]) => address),
        ).toEqual(people.map(([local]) => `${local}@inkpost.example`))
      },
    ),
  )
})

const card = (...lines: string[]) =>
  ['BEGIN:VCARD', 'VERSION:4.0', ...lines, 'END:VCARD', ''].join('\r\n')

test('vCards come to columns; what nobody has is no column', () => {
  const text =
    card(
      'FN:Bram Prynne-Marsh',
      'N:Prynne-Marsh;Bram;;;',
      'EMAIL;TYPE=work:office@workdesk.example',
      'EMAIL;PREF=1:bram@inkpost.example',
      'ADR;TYPE=home:;;1 Slipway;Sandreach;;SR1;Gale',
      'BDAY:19840930',
      'CATEGORIES:club,press',
    ) +
    card(
      'FN:Ivo',
      'EMAIL:ivo@oldmill.example',
      'BDAY:--0412',
      'NOTE:Two lines\\nof note\\, and a comma',
    )
  expect(rowsOfVcards(text)).toEqual([
    [
      'Address',
      'First name',
      'Last name',
      'Name',
      'Town',
      'Country',
      'Birthday',
      'Tags',
      'Remarks',
    ],
    [
      'bram@inkpost.example',
      'Bram',
      'Prynne-Marsh',
      '',
      'Sandreach',
      'Gale',
      '1984-09-30',
      'club, press',
      '',
    ],
    ['ivo@oldmill.example', '', '', 'Ivo', '', '', '', '', 'Two lines\nof note, and a comma'],
  ])
})

test('a card without an address, and one that is none, stay as rows to be refused', () => {
  const rows = rowsOfVcards(`${card('FN:Nobody')}BEGIN:VCARD\r\nnonsense\r\nEND:VCARD\r\n`)
  expect(rows[0]![0]).toBe('Address')
  expect(rows.slice(1).map(([address]) => address)).toEqual(['', ''])
})

test('cards of version 3.0 with a preferred address', () => {
  const text = card(
    'N:Olsen;Tove;;;',
    'EMAIL;TYPE=INTERNET:second@x.example',
    'EMAIL;TYPE=INTERNET,PREF:first@x.example',
  ).replace('4.0', '3.0')
  expect(rowsOfVcards(text)[1]).toEqual(['first@x.example', 'Tove', 'Olsen'])
})

test('people taken out as vCards come in again as they were', () => {
  const word = fc
    .string({ unit: 'grapheme', minLength: 1, maxLength: 20 })
    .map((text) => `n${text.replace(/[\p{Cc}\p{Cf}\p{Z}]/gu, ' ')}n`.replace(/ +/g, ' '))
  const writer = exportWriter(
    'vcard',
    exportColumns(
      [
        { key: 'first_name', name: 'First name', kind: 'text' },
        { key: 'last_name', name: 'Last name', kind: 'text' },
      ],
      'GBP',
    ).slice(0, 2),
  )
  fc.assert(
    fc.property(fc.array(fc.tuple(word, word), { minLength: 1, maxLength: 4 }), (names) => {
      const text = names
        .map(([first_name, last_name], i) =>
          writer.person(
            {
              address: `p${i}@inkpost.example`,
              values: { first_name, last_name },
              tags: [],
              lists: [],
              joinedAt: 0,
              orders: 0,
              spent: 0,
              openedAt: null,
              tier: 'silent',
            },
            i === 0,
          ),
        )
        .join('')
      expect(rowsOfVcards(text).slice(1)).toEqual(
        names.map(([first, last], i) => [`p${i}@inkpost.example`, first, last]),
      )
    }),
  )
})

/** A workbook with these sheets, as little of one as a reader needs. */
function workbook(...sheets: string[]): Blob {
  const files: Record<string, Uint8Array> = {
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>',
    ),
    'xl/workbook.xml': strToU8(
      `<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets>${sheets
        .map((_, i) => `<sheet name="S${i + 1}" sheetId="${i + 1}" r:id="rId${i + 1}"/>`)
        .join('')}</sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': strToU8(
      `<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${sheets
        .map(
          (_, i) =>
            `<Relationship Id="rId${i + 1}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet${i + 1}.xml"/>`,
        )
        .join('')}</Relationships>`,
    ),
    'xl/styles.xml': strToU8(
      '<?xml version="1.0"?><styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>',
    ),
  }
  sheets.forEach((rows, i) => {
    files[`xl/worksheets/sheet${i + 1}.xml`] = strToU8(
      `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${rows}</sheetData></worksheet>`,
    )
  })
  return new Blob([zipSync(files)])
}
const words = (r: number, ...cells: string[]) =>
  `<row r="${r}">${cells
    .map((cell, i) => `<c r="${'ABCDE'[i]}${r}" t="inlineStr"><is><t>${cell}</t></is></c>`)
    .join('')}</row>`

test('a workbook’s first sheet with people in it: words, numbers, days, yes and no', async () => {
  const people =
    words(1, 'Mail', 'Name', 'Joined', 'Spent', 'Club') +
    '<row r="2"><c r="A2" t="inlineStr"><is><t>tove@inkpost.example</t></is></c><c r="B2" t="inlineStr"><is><t>Marsh, "Tove"</t></is></c><c r="C2" s="1"><v>46349</v></c><c r="D2"><v>13.69</v></c><c r="E2" t="b"><v>1</v></c></row>' +
    '<row r="3"><c r="A3" t="inlineStr"><is><t>ivo@oldmill.example</t></is></c><c r="E3" t="b"><v>0</v></c></row>'
  expect(await fileAsCsv(workbook('', people))).toBe(
    'Mail,Name,Joined,Spent,Club\r\ntove@inkpost.example,"Marsh, ""Tove""",2026-11-23,13.69,yes\r\nivo@oldmill.example,,,,no\r\n',
  )
})

test('vCards are told by how they begin; text is left as it is; what only looks like a workbook is a fault', async () => {
  expect(await fileAsCsv(new Blob([card('EMAIL:a@x.example')]))).toBe('Address\r\na@x.example\r\n')
  expect(await fileAsCsv(new Blob(['mail,name\na@x.example,A\n']))).toBeNull()
  expect(await fileAsCsv(new Blob([]))).toBeNull()
  await expect(fileAsCsv(new Blob([new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9])]))).rejects.toThrow()
})

test('a file can be read in another encoding than the one it seems to have', () => {
  const bytes = new Uint8Array(Buffer.from('mail,name\nx@x.example,Zo\u00eb\n', 'latin1'))
  const known = { fields: [], lists: [] }
  const names = (encoding?: 'utf-8' | 'windows-1252') => {
    const file = understandFile(bytes, bytes.length, known, encoding ? { encoding } : {})
    return 'problem' in file ? file.problem : file.rows[0]![1]
  }
  expect(names()).toBe('Zoë')
  expect(names('utf-8')).toBe('Zo\uFFFD')
  expect(names('windows-1252')).toBe('Zoë')
})
