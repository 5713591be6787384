/** The shelves and the work of an ingredient, in the words of a cook. */
export const groups: Record<string, string> = {
  puree: 'purées', grated: 'grated', fresh_piece: 'fresh fruit', frozen_piece: 'frozen fruit', dry_piece: 'nuts, chips, dry fruit', powder: 'powders', spice: 'spices',
  extract: 'extracts', zest: 'zest', herb: 'herbs', infusion: 'infusions', topping: 'toppings', syrup: 'syrups', sugar: 'sugars', flour: 'flours', starch: 'starches',
  liquid: 'liquids', cultured_dairy: 'cultured dairy', egg: 'eggs', fat: 'fats', leavener: 'leaveners', acid: 'acids', salt: 'salt',
}

export const roles: Record<string, string> = {
  flour: 'flour', sugar: 'sugar', fat: 'fat', egg: 'egg', liquid: 'liquid, may give way', dairy: 'dairy, stays', leavener: 'leavener', soda: 'soda', acid: 'acid', salt: 'salt',
  flavour: 'flavour', puree: 'purée', piece: 'piece', topping: 'topping',
}
