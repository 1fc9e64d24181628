/** Made-up names in several scripts; the second is how the name stands in an address. */
export const firstNames: [string, string][] = [
  ['Tamsin', 'tamsin'], ['Ivo', 'ivo'], ['Noor', 'noor'], ['Pell', 'pell'], ['Sunniva', 'sunniva'], ['Rafe', 'rafe'],
  ['Bram', 'bram'], ['Cass', 'cass'], ['Dov', 'dov'], ['Halvard', 'halvard'], ['Isolde', 'isolde'], ['Kwame', 'kwame'],
  ['Leïla', 'leila'], ['Łucja', 'lucja'], ['Ngaio', 'ngaio'], ['Orla', 'orla'], ['Ottilie', 'ottilie'], ['Pia', 'pia'],
  ['Søren', 'soren'], ['Tove', 'tove'], ['Ümit', 'umit'], ['Wren', 'wren'], ['Zdeněk', 'zdenek'], ['Þóra', 'thora'],
  ['Inês', 'ines'], ['Aoife', 'aoife'], ['Marit', 'marit'], ['Joss', 'joss'], ['Perran', 'perran'], ['Elowen', 'elowen'],
  ['Мила', 'mila'], ['Ярослав', 'yaroslav'], ['Ελένη', 'eleni'], ['结衣', 'yui'], ['دانا', 'dana'], ['नीरा', 'nira'],
  ['Jago', 'jago'], ['Merryn', 'merryn'], ['Anselm', 'anselm'], ['Bryony', 'bryony'], ['Corin', 'corin'], ['Della', 'della'],
]
export const lastNames: [string, string][] = [
  ['Aldergate', 'aldergate'], ['Brandreth', 'brandreth'], ['Castellane', 'castellane'], ['Dunmarrow', 'dunmarrow'],
  ['Eddleston', 'eddleston'], ['Fothermill', 'fothermill'], ['Garside', 'garside'], ['O’Hallow', 'ohallow'],
  ['Prynne-Marsh', 'prynne-marsh'], ['Quillan', 'quillan'], ['Råsten', 'rasten'], ['Şahin', 'sahin'], ['Tregarth', 'tregarth'],
  ['Uskwood', 'uskwood'], ['Venn', 'venn'], ['Wetherlam', 'wetherlam'], ['Yarrow', 'yarrow'], ['Zennick', 'zennick'],
  ['Coldwell', 'coldwell'], ['Hathersedge', 'hathersedge'], ['Innerlee', 'innerlee'], ['Jessamine', 'jessamine'],
  ['Kestle', 'kestle'], ['Larkfield', 'larkfield'], ['Maddox-Bray', 'maddox-bray'], ['Nantwater', 'nantwater'],
]
export const towns = ['Sandreach', 'Hale Point', 'Gull Harbour', 'Orrin', 'Brackwater', 'Little Fenn', 'Stannow', 'Merewick', 'Coldstrand', 'Penny Quay', 'Saltholm', 'Wickering']
export const styles = ['single-line', 'stunt', 'power', 'indoor']
export const kites = ['Delta 4', 'Delta 7', 'Sled', 'Rokkaku', 'Tideline', 'Skerry', 'Pocket', 'Box No. 3']
/** Mailbox providers and their share of the people. */
export const domains: [string, number][] = [
  ['harbourmail.example', 34], ['inkpost.example', 25], ['oldmill.example', 14], ['workdesk.example', 14], ['veilpost.example', 11], ['sandreach.example', 2],
]
