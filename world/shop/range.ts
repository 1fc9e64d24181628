/** Something the shop sells; the price in pence. */
export interface Product {
  key: string
  name: string
  category: string
  price: number
}

/** What the workshop sells: by category, names and prices in pounds. */
const range: Record<string, [string, number][]> = {
  'single-line': [
    ['Sandreach Sled', 24],
    ['Barn Door 3', 38],
    ['Gull', 46],
    ['Pocket Sled', 16],
    ['Rokkaku 4', 64],
    ['Box kite, linen', 88],
    ['Harbour Eddy', 34],
    ['Star, six points', 52],
    ['Flat Tern', 29],
    ['Night Lantern', 71],
  ],
  delta: [
    ['Delta 3', 42],
    ['Delta 5', 68],
    ['Delta 7', 94],
    ['Delta 7 Vent', 102],
    ['Delta Conyne', 84],
    ['Little Delta', 22],
  ],
  stunt: [
    ['Squall', 112],
    ['Squall Vented', 124],
    ['Petrel', 149],
    ['Petrel Light', 158],
    ['Quad Skua', 186],
    ['Practice Wing', 58],
    ['Sheerwater', 134],
    ['Indoor Moth', 96],
  ],
  power: [
    ['Hauler 2', 168],
    ['Hauler 3', 204],
    ['Hauler 5', 288],
    ['Trainer bar kite', 139],
    ['Buggy sail', 246],
  ],
  kits: [
    ['Sled kit', 14],
    ['Barn Door kit', 21],
    ['Delta kit', 27],
    ['Class kit for ten', 89],
    ['Tails and ribbons', 9],
    ['Bamboo spar kit', 18],
  ],
  line: [
    ['Line 25 kg, 100 m', 11],
    ['Line 50 kg, 100 m', 14],
    ['Line 90 kg, 50 m', 17],
    ['Dual line set, 25 m', 26],
    ['Quad line set, 30 m', 39],
    ['Winder', 7],
    ['Halo reel', 19],
    ['Ground stake', 6],
  ],
  parts: [
    ['Carbon spar 5 mm', 5],
    ['Carbon spar 6 mm', 6],
    ['Fibreglass spar', 3],
    ['Connectors, ten', 4],
    ['Ripstop patch set', 8],
    ['Bridle line, 10 m', 4],
    ['Edge tape, 25 m', 7],
    ['Swivels, five', 3],
  ],
  courses: [
    ['Build a sled: one day', 45],
    ['Build a delta: weekend', 120],
    ['Repair evening', 12],
    ['Stunt flying, beginners', 55],
    ['Stunt flying, teams', 75],
    ['Sewing ripstop', 38],
    ['Family kite day', 30],
    ['Workshop key, a year', 90],
    ['Line work', 18],
  ],
}

/** Everything in the shop, category by category. */
export const products: Product[] = Object.entries(range).flatMap(([category, things]) =>
  things.map(([name, pounds]) => ({
    key: name.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
    name,
    category,
    price: pounds * 100,
  })),
)
