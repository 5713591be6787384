/** Our own icons on a 24 grid, 2 px stroke, round ends. */
type Drawing = { lines: string[]; solid?: string[] }

const drawings = {
  bench: { lines: ['M3 11h18c0 5-3.5 8-9 8s-9-3-9-8z', 'M15.5 8 19 2.5', 'M9 22h6'] },
  search: { lines: ['M10.5 4a6.5 6.5 0 1 0 0 13a6.5 6.5 0 1 0 0-13z', 'm15.5 15.5 6 6'] },
  undo: { lines: ['M4 10h10a6 6 0 0 1 0 12h-3', 'M9 4 3.5 10 9 16'] },
  redo: { lines: ['M20 10H10a6 6 0 0 0 0 12h3', 'm15 4 5.5 6L15 16'] },
  minus: { lines: ['M5 12h14'] },
  plus: { lines: ['M5 12h14M12 5v14'] },
  drop: { lines: [], solid: ['M12 3c4 5 6 8 6 11a6 6 0 0 1-12 0c0-3 2-6 6-11z'] },
  cube: { lines: [], solid: ['M5 6h14v13H5z'] },
  grain: { lines: ['M12 22V9'], solid: ['M12 9c-2-2-2-4 0-7 2 3 2 5 0 7zM11 15c-3 0-5-1.5-5-5 3 0 5 1.5 5 5zM13 15c3 0 5-1.5 5-5-3 0-5 1.5-5 5z'] },
  rise: { lines: ['M5 13 12 6l7 7M5 20l7-7 7 7'] },
  tick: { lines: ['m4 13 5.5 5.5L20 6.5'] },
  down: { lines: ['m6 9 6 6 6-6'] },
  pour: { lines: ['M12 4v11M7 10.5l5 4.5 5-4.5', 'M4 20h16'] },
  caution: { lines: ['M12 3 22 20H2z', 'M12 10v4.5M12 17.3v.2'] },
  allergen: { lines: ['M12 3c5 0 8 4 8 9s-3 9-8 9-8-4-8-9 3-9 8-9z', 'M12 3v18M8 8c1 1 1 3 0 4M16 8c-1 1-1 3 0 4'] },
  sound: { lines: ['M4 9h4l5-4v14l-5-4H4z', 'M16.5 9a4.5 4.5 0 0 1 0 6M19 6.500a8 8 0 0 1 0 11'] },
  mute: { lines: ['M4 9h4l5-4v14l-5-4H4z', 'M17 9.500l5 5M22 9.500l-5 5'] },
  fridge: { lines: ['M6 2h12v20H6zM6 9h12M9 5v1.500M9 12v4'] },
  pin: { lines: ['M8 3h8l-1.5 7 3.5 4H6l3.5-4z', 'M12 14v7'] },
  scale: { lines: ['M4 20h16l-2-8H6z', 'M4 8h16M12 8v4'] },
  offline: { lines: ['M4 4l16 16', 'M2 9c3-3 7-4 10-4M22 9c-1.5-1.5-3.5-2.7-5.5-3.4M6 13c1.5-1.5 3-2.3 5-2.7M9.5 17c1.5-1.3 3.5-1.3 5 0'] },
  bin: { lines: ['M4 7h16M9 7V4h6v3M6.5 7l1 14h9l1-14M10 11v6M14 11v6'] },
  sun: { lines: ['M12 8a4 4 0 1 0 0 8a4 4 0 1 0 0-8z', 'M12 2v2M12 20v2M2 12h2M20 12h2M5 5l1.4 1.4M17.6 17.6 19 19M19 5l-1.4 1.4M6.4 17.6 5 19'] },
  moon: { lines: ['M19 14.5A8 8 0 0 1 9.5 5a8 8 0 1 0 9.5 9.5z'] },
  keys: { lines: ['M3 6h18v12H3z', 'M7 10h.1M11 10h.1M15 10h.1M8 14h8'] },
  more: { lines: ['M5 12h.1M12 12h.1M19 12h.1'] },
  swap: { lines: ['M4 8h14M14 4l4 4-4 4', 'M20 16H6M10 12l-4 4 4 4'] },
  why: { lines: ['M9 9a3 3 0 1 1 4.5 2.6c-1 .6-1.5 1.2-1.5 2.4', 'M12 18v.1', 'M12 2.5a9.5 9.5 0 1 0 0 19a9.5 9.5 0 1 0 0-19z'] },
  list: { lines: ['M9 6h11M9 12h11M9 18h11M4 6h.1M4 12h.1M4 18h.1'] },
  copy: { lines: ['M8 8h12v13H8z', 'M16 8V3H4v13h4'] },
  flag: { lines: ['M5 22V3M5 4h13l-3 4 3 4H5'] },
  resize: { lines: ['M4 14v6h6M20 10V4h-6M4 20l7-7M20 4l-7 7'] },
  kitchen: { lines: ['M3 21V9l9-6 9 6v12', 'M7 11h10v5H7zM5 16h14'] },
  griddle: {
    lines: [
      'M5 6h14a3 3 0 0 1 3 3v6a3 3 0 0 1-3 3H5a3 3 0 0 1-3-3V9a3 3 0 0 1 3-3z',
      'M8 9a3 3 0 1 0 0 6a3 3 0 1 0 0-6zM16 9a3 3 0 1 0 0 6a3 3 0 1 0 0-6z',
    ],
  },
  iron: { lines: ['M4 4h16v16H4z', 'M4 9.3h16M4 14.6h16M9.3 4v16M14.6 4v16'] },
  tub: { lines: ['M5 8h14l-1.5 13h-11z', 'M3.5 5h17v3h-17z'] },
  shelf: { lines: ['M3 3v18M21 3v18M3 10h18M3 18h18', 'M7 10V5h4v5M15 18v-5h3v5M7 18v-4h4v4'] },
  knife: { lines: ['M2 14h13V5H6c-3 0-4 5-4 9z', 'M15 9.5h7V14h-7', 'M2 19h20'] },
  out: { lines: ['M12 3v12M7 8l5-5 5 5', 'M4 14v6h16v-6'] },
  base: { lines: ['M4 9c0-3 16-3 16 0v3c0 5-3 9-8 9s-8-4-8-9z', 'M4 10c0 3 16 3 16 0'] },
  print: { lines: ['M7 8V3h10v5', 'M7 17H3V8h18v9h-4', 'M7 14h10v7H7z'] },
  flip: { lines: ['M4 13a8 8 0 0 1 15-3', 'M20 4v6h-6', 'M3 19h18'] },
  eye: { lines: ['M2 12c3-5 6.500-7.500 10-7.500s7 2.500 10 7.500c-3 5-6.500 7.500-10 7.500S5 17 2 12z', 'M12 9a3 3 0 1 0 0 6a3 3 0 1 0 0-6z'] },
  close: { lines: ['M5 5l14 14M19 5 5 19'] },
} satisfies Record<string, Drawing>

export type IconName = keyof typeof drawings

export const icons: Record<IconName, Drawing> = drawings
