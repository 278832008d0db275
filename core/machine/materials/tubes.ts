/** What a tube's wall does. General estimates for the family, no maker's data (handbook E and I). */
export interface TubeMaterial {
  readonly label: string;
  /** g·mm/(m²·day) of water at 38 °C through the wall */
  readonly permeability: number;
  /** MPa; null for walls that do not give at these pressures */
  readonly modulusMpa: number | null;
  readonly poisson: number;
  readonly soft: boolean;
}

export const TUBE_MATERIALS = {
  glass: { label: 'glass', permeability: 0, modulusMpa: null, poisson: 0.22, soft: false },
  metal: { label: 'metal', permeability: 0, modulusMpa: null, poisson: 0.33, soft: false },
  epdm: { label: 'EPDM rubber', permeability: 0.6, modulusMpa: 5, poisson: 0.49, soft: true },
  pvc: { label: 'soft PVC', permeability: 4, modulusMpa: 5, poisson: 0.49, soft: true },
  pur: { label: 'polyurethane', permeability: 20, modulusMpa: 20, poisson: 0.49, soft: true },
  petg: { label: 'PETG', permeability: 1.8, modulusMpa: 3000, poisson: 0.35, soft: false },
  acrylic: { label: 'acrylic', permeability: 3.5, modulusMpa: 3000, poisson: 0.35, soft: false },
} as const satisfies Record<string, TubeMaterial>;

export type TubeMaterialName = keyof typeof TUBE_MATERIALS;
export const TUBE_MATERIAL_NAMES = Object.keys(TUBE_MATERIALS) as TubeMaterialName[];

/** null for a word from elsewhere */
export const findTubeMaterial = (name: string): TubeMaterial | null =>
  Object.hasOwn(TUBE_MATERIALS, name) ? TUBE_MATERIALS[name as TubeMaterialName] : null;

/** A length of tube by its wall. mm */
export interface TubePiece {
  readonly material: TubeMaterialName;
  readonly boreMm: number;
  readonly outerMm: number;
  readonly lengthMm: number;
}
