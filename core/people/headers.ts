/** What a column is called by its name alone; `date`, `text`: how its values are meant. */
export interface NamedColumn {
  is?: 'address' | 'first' | 'last' | 'whole' | 'tags'
  /** Other names of the same field; a field of the account may go by any of them. */
  synonyms?: readonly string[]
  values?: 'date' | 'text'
}

const { raw } = String

/**
 * The usual names of columns in English, German, French, Spanish, Italian, Dutch and Portuguese, as {@link plainName}
 * writes them: no accents, no signs.
 */
const parts: readonly [NamedColumn['is'], RegExp][] = [
  [
    'address',
    new RegExp(
      raw`^(e ?)?mails?( ?(address|addresses|adress|adresse|id))?$|^address$|^(adresse|direccion|indirizzo|endereco)( de| di)? (e ?mail|courriel|electronique|email|correo)$|^(courriel|correo|correo electronico|e ?post|mailadresse|emailadres|posta elettronica)$|^(subscriber|contact|primary|work|personal|home)( e)? ?mail$`,
    ),
  ],
  [
    'first',
    /^(first|given|fore|christian)( ?names?)?$|^fname$|^vorname$|^prenom$|^nombres?( de pila)?$|^nome( proprio)?$|^voornaam$|^primeiro nome$/,
  ],
  [
    'last',
    /^(last|family|sur)( ?names?)?$|^lname$|^(nachname|familienname|zuname)$|^nom( de famille)?$|^apellidos?$|^cognome$|^achternaam$|^(sobrenome|apelido)$/,
  ],
  [
    'whole',
    /^(full |whole |display |contact |your )?name$|^contact$|^(voller name|vollstandiger name)$|^nom complet$|^nombre completo$|^nome completo$|^naam$/,
  ],
  [
    'tags',
    /^(tags?|labels?|groups?|categories|categorie|schlagworter|etiquetas?|etiquettes?|etichette|gruppen?)$/,
  ],
]

/** Columns that mean the same, whatever they are called; what stands second is how their values are meant. */
const same: readonly [readonly string[], NamedColumn['values']?][] = [
  [
    [
      'town',
      'city',
      'town city',
      'city town',
      'ort',
      'stadt',
      'wohnort',
      'ville',
      'ciudad',
      'citta',
      'plaats',
      'woonplaats',
      'cidade',
      'localidad',
      'locality',
    ],
  ],
  [['country', 'land', 'pays', 'pais', 'paese']],
  [
    [
      'born',
      'birthday',
      'birth date',
      'birthdate',
      'date of birth',
      'd o b',
      'dob',
      'geburtstag',
      'geburtsdatum',
      'geboren',
      'date de naissance',
      'anniversaire',
      'fecha de nacimiento',
      'cumpleanos',
      'data di nascita',
      'geboortedatum',
      'data de nascimento',
    ],
    'date',
  ],
  [
    [
      'mobile',
      'mobile number',
      'mobile phone',
      'cell',
      'cell phone',
      'cellphone',
      'phone',
      'phone number',
      'telephone',
      'tel',
      'handy',
      'mobil',
      'telefon',
      'telefonnummer',
      'portable',
      'movil',
      'telefono',
      'cellulare',
      'mobiel',
      'telefoon',
      'telemovel',
      'telefone',
    ],
    'text',
  ],
  [
    [
      'postcode',
      'post code',
      'postal code',
      'zip',
      'zip code',
      'plz',
      'postleitzahl',
      'code postal',
      'codigo postal',
      'cap',
      'cep',
    ],
    'text',
  ],
  [
    [
      'organisation',
      'organization',
      'company',
      'firma',
      'unternehmen',
      'societe',
      'entreprise',
      'empresa',
      'azienda',
      'bedrijf',
    ],
  ],
]

const ofDates =
  /\b(date|day|since|joined|born|birthday|signed|datum|seit|tag|depuis|fecha|desde|data|sinds|created|updated|until|expires)\b/
const ofText = /\b(no|nr|id|ref|number|code|phone|postcode|zip|nummer|numero|mobile)\b/

/** What a column's name says of it. */
export function namedColumn(header: string): NamedColumn {
  const name = plainName(header)
  const is = parts.find(([, form]) => form.test(name))?.[0]
  if (is) return { is }
  const alike = same.find(([names]) => names.includes(name))
  const values =
    alike?.[1] ?? (ofDates.test(name) ? 'date' : ofText.test(name) ? 'text' : undefined)
  return { ...(alike && { synonyms: alike[0] }), ...(values && { values }) }
}

/** A column's name for comparing: letters and figures in lower case, words apart by one space. */
export function plainName(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}
