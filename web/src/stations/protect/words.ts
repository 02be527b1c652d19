// How fragile a thing is, as people choose it; the shop reads the word, and a figure such as 60 G as well.
export const FRAGILITY: { value: string; says: string }[] = [
  { value: '', says: 'not said' },
  { value: 'extremely-fragile', says: 'extremely fragile, 15–25 G' },
  { value: 'very-delicate', says: 'very delicate, 25–40 G' },
  { value: 'delicate', says: 'delicate, 40–60 G' },
  { value: 'moderately-delicate', says: 'moderately delicate, 60–85 G' },
  { value: 'moderately-rugged', says: 'moderately rugged, 85–115 G' },
  { value: 'rugged', says: 'rugged, over 115 G' },
];
