// The shapes a part can have, and what is measured of each, in the order of measuring.
export interface Asked {
  name: string;
  label: string;
}

export interface Kind {
  kind: string;
  title: string;
  asked: Asked[];
}

const size = (name: string, label: string): Asked => ({ name, label });

export const KINDS: Kind[] = [
  {
    kind: 'box',
    title: 'box',
    asked: [size('length', 'Length'), size('width', 'Width'), size('height', 'Height')],
  },
  { kind: 'cylinder', title: 'cylinder', asked: [size('diameter', 'Diameter'), size('length', 'Length')] },
  { kind: 'disc', title: 'disc', asked: [size('diameter', 'Diameter'), size('thickness', 'Thickness')] },
  {
    kind: 'ring',
    title: 'ring',
    asked: [
      size('outer_diameter', 'Outside diameter'),
      size('inner_diameter', 'Inside diameter'),
      size('thickness', 'Thickness'),
    ],
  },
  {
    kind: 'taper',
    title: 'taper',
    asked: [
      size('diameter_a', 'Diameter at one end'),
      size('diameter_b', 'Diameter at the other'),
      size('length', 'Length'),
    ],
  },
  {
    kind: 'ellipsoid',
    title: 'rounded',
    asked: [size('length', 'Length'), size('width', 'Width'), size('height', 'Height')],
  },
  { kind: 'outline', title: 'flat outline', asked: [size('thickness', 'Thickness')] },
  { kind: 'bars', title: 'bars', asked: [size('diameter', 'Diameter of the bars')] },
  { kind: 'compound', title: 'several fixed', asked: [] },
  { kind: 'mesh', title: 'mesh file', asked: [size('unit', 'One step is')] },
];

export const asked = (kind: string): Asked[] => KINDS.find((one) => one.kind === kind)?.asked ?? [];

/** Short enough for a field in a row. */
export const SHORT: Record<string, string> = {
  outer_diameter: 'Outside',
  inner_diameter: 'Inside',
  diameter_a: 'Ø one end',
  diameter_b: 'Ø other end',
  unit: '1 in, 1 mm',
};
