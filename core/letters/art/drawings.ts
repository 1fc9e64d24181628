import { mixed } from '../color'
import { band, box, disc, line, path, sky } from './strokes'
import type { Drawing } from '.'

/**
 * Every drawing. Two or three flat colours each, and one curve that recurs: the long wave of {@link band}. Nothing in them is
 * of one trade, so that a baker, a club and a shop can begin with them.
 */
export const drawings: Record<string, Drawing> = {
  /** A wide view with a low sun, for over a story. */
  hills: {
    shape: 0.42,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 420, soft),
        disc(760, 150, 78, second),
        band(1000, 250, 420, mixed(first, soft, 0.55), 70),
        band(1000, 310, 420, mixed(first, soft, 0.2), -48),
        band(1000, 360, 420, deep, 30),
        line('M80 96c90-40 170 30 260 0M140 140c70-24 120 14 190-6', mixed(first, soft, 0.5), 5),
      ].join(''),
  },
  /** Deep, with a circle of light: for a sale or an evening. */
  night: {
    shape: 0.5,
    draw: ({ first, second, deep }) =>
      [
        box(0, 0, 1000, 500, mixed(deep, first, 0.28)),
        disc(720, 220, 210, mixed(first, deep, 0.45)),
        disc(720, 220, 140, mixed(first, light(second), 0.12)),
        path('M720 96l86 104-60 128-118-66z', second),
        path('M720 96l-92 166 118 66z', mixed(second, deep, 0.22)),
        line('M690 296C520 360 360 420 190 470', light(second), 4),
        band(1000, 400, 500, deep, 46),
        ...sky(light(second), [
          ...[60, 84, 180, 52, 300, 130, 420, 66, 540, 150, 900, 70, 950, 250, 90, 230],
        ]),
      ].join(''),
  },
  /** A sheet with lines on it, standing on a wave: for a guide, a lesson, something to read. */
  sheet: {
    shape: 0.44,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 440, soft),
        `<g transform="rotate(-5 500 230)">${box(372, 52, 256, 400, deep, 14)}${box(380, 60, 240, 400, paper, 10)}${path('M380 130V70a10 10 0 0 1 10-10h220a10 10 0 0 1 10 10v60q-60 34-120 0t-120 0z', second)}${disc(500, 106, 26, first)}${[200, 236, 272].map((y, n) => box(416, y, [168, 150, 104][n]!, 10, mixed(first, paper, 0.62), 5)).join('')}</g>`,
        band(1000, 372, 440, paper, 34),
      ].join(''),
  },
  /** The cover of something to read, upright, for beside its words. */
  cover: {
    shape: 1.1,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 1100, soft),
        `<g transform="rotate(-4 500 550)">${box(196, 86, 628, 948, deep, 26)}${box(212, 102, 596, 916, paper, 16)}${path('M212 400V118a16 16 0 0 1 16-16h564a16 16 0 0 1 16 16v282q-150 84-298 0t-298 0z', second)}${disc(510, 250, 84, first)}${[540, 640, 740].map((y, n) => box(290, y, [440, 380, 260][n]!, 26, mixed(first, paper, 0.62), 13)).join('')}</g>`,
      ].join(''),
  },
  /** Things on a table: for a workshop, an event, a place to come to. */
  table: {
    shape: 0.5,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 500, soft),
        disc(230, 150, 92, paper),
        line('M230 150V92M230 150l44 26', deep, 8),
        line('M230 58a92 92 0 1 1 0 184 92 92 0 1 1 0-184', deep, 8),
        box(120, 356, 760, 34, deep, 6),
        box(190, 390, 28, 110, deep),
        box(782, 390, 28, 110, deep),
        path('M420 356l120-220 120 220z', first),
        path('M540 136v220H420z', mixed(first, paper, 0.35)),
        box(700, 270, 86, 86, second, 10),
        line('M786 292c44 0 44 44 0 44', second, 12),
        line('M722 248c-10-18 12-22 2-42M758 248c-10-18 12-22 2-42', mixed(deep, soft, 0.5), 5),
      ].join(''),
  },
  /** A parcel with a ribbon: for a present, a purchase, a thank-you. */
  parcel: {
    shape: 0.5,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 500, soft),
        band(1000, 400, 500, mixed(first, soft, 0.65), 40),
        path('M340 210l160-64 160 64-160 64z', mixed(first, '#ffffff', 0.28)),
        path('M340 210v176l160 66V274z', first),
        path('M660 210v176l-160 66V274z', deep),
        path('M410 182l160 64v44l-26-12-24 32v-44l-160-64z', second),
        line('M500 146c-70-90-150-36-60 12M500 146c70-90 150-36 60 12', second, 14),
      ].join(''),
  },
  /** An envelope that opens, for a welcome. */
  envelope: {
    shape: 0.44,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 440, soft),
        disc(500, 236, 168, mixed(soft, first, 0.16)),
        path('M330 214l170-118 170 118v150a12 12 0 0 1-12 12H342a12 12 0 0 1-12-12z', deep),
        box(372, 120, 256, 190, paper, 8),
        ...[158, 186, 214].map((y, n) =>
          box(404, y, [192, 160, 96][n]!, 9, mixed(first, paper, 0.6), 4),
        ),
        path('M330 214l170 104 170-104v150a12 12 0 0 1-12 12H342a12 12 0 0 1-12-12z', first),
        path('M330 376l170-106 170 106z', mixed(first, deep, 0.35)),
        disc(640, 128, 30, second),
      ].join(''),
  },
  /** Steps that go up, each a little higher: for a year, a course, how far one came. */
  steps: {
    shape: 0.4,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 400, soft),
        ...[0, 1, 2, 3, 4].map((n) =>
          box(
            150 + n * 148,
            300 - n * 50,
            112,
            100 + n * 50,
            mixed(first, soft, 0.62 - n * 0.15),
            6,
          ),
        ),
        line('M206 250C360 240 470 170 560 150S720 90 798 46', deep, 6),
        disc(798, 46, 22, second),
      ].join(''),
  },
  /** A heart of two waves: for thanks, for a review, for coming back. */
  heart: {
    shape: 0.4,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 400, soft),
        band(1000, 300, 400, mixed(second, soft, 0.55), 44),
        path(
          'M500 330C380 250 350 190 380 136c30-52 96-46 120 6 24-52 90-58 120-6 30 54 0 114-120 194z',
          first,
        ),
        path('M500 330V142c24-52 90-58 120-6 30 54 0 114-120 194z', deep),
        line('M250 120c40-24 70 14 110 0M640 290c44-22 74 12 116-4', mixed(first, soft, 0.45), 6),
      ].join(''),
  },
  /** A cake with a candle, for a birthday. */
  cake: {
    shape: 0.5,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 500, soft),
        box(260, 420, 480, 16, deep, 8),
        box(320, 270, 360, 150, first, 14),
        path(
          'M320 284a14 14 0 0 1 14-14h332a14 14 0 0 1 14 14v44q-45 40-90 0t-90 0-90 0-90 0z',
          paper,
        ),
        box(486, 160, 28, 110, second, 6),
        path('M500 84c34 34 28 66 0 66s-34-32 0-66z', deep),
        ...sky(
          second,
          [180, 110, 260, 190, 380, 90, 640, 120, 760, 80, 820, 210, 120, 260, 880, 320],
        ),
      ].join(''),
  },
  /** Hills in snow under a deep sky: for a card at the turn of the year. */
  winter: {
    shape: 0.75,
    draw: ({ first, second, deep, paper }) =>
      [
        box(0, 0, 1000, 750, deep),
        ...sky(light(second), [
          ...[110, 120, 220, 260, 330, 90, 480, 200, 600, 110, 720, 260, 830, 140, 900, 320],
          ...[160, 420, 380, 380, 660, 420],
        ]),
        disc(700, 190, 64, second),
        band(1000, 500, 750, mixed(first, paper, 0.55), -60),
        path('M330 560l70-210 70 210z', mixed(deep, '#000000', 0.25)),
        path('M270 600l70-180 70 180z', first),
        band(1000, 590, 750, paper, 60),
      ].join(''),
  },
  /** Leaves that fall along a wave: spring and autumn, by the colours. */
  leaves: {
    shape: 0.5,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 500, soft),
        band(1000, 390, 500, mixed(second, soft, 0.5), 50),
        line('M500 470C520 330 470 210 540 60', deep, 9),
        ...[
          [512, 380, 40],
          [500, 300, -140],
          [496, 240, 30],
          [506, 170, -150],
          [530, 110, 20],
        ].map(([x, y, turn], n) => leaf(x!, y!, turn!, n % 2 ? second : first)),
        leaf(250, 190, 65, second),
        leaf(760, 250, 120, first),
        leaf(820, 110, 30, mixed(second, soft, 0.3)),
      ].join(''),
  },
  /** A sun over water, for summer. */
  summer: {
    shape: 0.5,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 500, soft),
        disc(500, 280, 170, second),
        band(1000, 300, 500, mixed(first, soft, 0.3), 26),
        band(1000, 360, 500, first, -26),
        band(1000, 430, 500, deep, 24),
        path('M250 372l90-190v190z', paper),
        path('M350 372V210l70 162z', mixed(paper, second, 0.3)),
        path('M226 384h220l-34 46H262z', deep),
      ].join(''),
  },
  /** A portrait in a circle, beside a signature. */
  face: {
    shape: 1,
    draw: ({ first, second, soft, deep }) =>
      [
        `<clipPath id="c"><circle cx="500" cy="500" r="500"/></clipPath><g clip-path="url(#c)">`,
        box(0, 0, 1000, 1000, mixed(soft, first, 0.2)),
        path('M150 1000c20-240 160-320 350-320s330 80 350 320z', first),
        path('M420 600h160v130q-80 70-160 0z', mixed('#e9b98c', deep, 0.12)),
        disc(500, 450, 190, '#e9b98c'),
        path(
          'M306 470c-30-220 90-300 210-300 150 0 220 110 190 290-40-110-130-150-210-150-80 0-160 50-190 160z',
          deep,
        ),
        path('M360 770q140 90 280 0l20 60q-160 90-320 0z', second),
        '</g>',
      ].join(''),
  },
  /** Three things one might sell, in place of pictures of one’s own. */
  'thing-one': {
    shape: 0.75,
    draw: ({ first, second, soft, deep }) =>
      [
        box(0, 0, 1000, 750, soft),
        path('M140 430L500 210v110z', first),
        path('M860 430L500 210v110z', second),
        line('M500 210V600', deep, 10),
      ].join(''),
  },
  'thing-two': {
    shape: 0.75,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 750, mixed(soft, first, 0.1)),
        path('M220 420q280-270 560 0l-90 26q-90-66-190 4-100-70-190-4z', first),
        line('M500 290V446M378 330l-68 116M622 330l68 116', paper, 8),
        line('M220 420l280 190 280-190', deep, 7),
        disc(500, 610, 18, second),
      ].join(''),
  },
  'thing-three': {
    shape: 0.75,
    draw: ({ first, second, soft, deep, paper }) =>
      [
        box(0, 0, 1000, 750, mixed(soft, second, 0.14)),
        disc(500, 375, 200, first),
        disc(500, 375, 130, paper),
        disc(500, 375, 66, deep),
        line('M686 302c90 40 140 130 110 250', second, 16),
      ].join(''),
  },
}

/** What shines in the dark: hardly coloured. */
const light = (color: string) => mixed(color, '#ffffff', 0.8)

/** A leaf with its rib, from a point, turned by degrees. */
function leaf(x: number, y: number, turn: number, color: string): string {
  const rib = line('M0 0h96', mixed(color, '#000000', 0.25), 4)
  return `<g transform="translate(${x} ${y}) rotate(${turn})">${path('M0 0q56-62 120 0-64 62-120 0z', color)}${rib}</g>`
}
