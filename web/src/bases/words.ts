/** The styles of a base in the words of a cook. */
export const styles: Record<string, string> = {
  milk: 'plain milk',
  cultured: 'cultured',
  yogurt: 'yogurt',
  curd: 'curd cheese',
  self_raising: 'self-raising',
  whipped: 'whipped whites',
  crisp: 'crisp',
  chewy: 'chewy',
  yeast: 'yeast',
  crepe: 'crêpe',
  buckwheat: 'buckwheat',
  flourless: 'flourless',
}
