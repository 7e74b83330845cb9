interface Vertex { x?: number; y?: number; z?: number; bulge?: number }
export interface Entity { type: string; layer?: string; x?: number; y?: number; z?: number; start?: Vertex; end?: Vertex; vertices?: Vertex[]; closed?: boolean; polyfaceMesh?: boolean; polygonMesh?: boolean; elevation?: number; thickness?: number; extrusionZ?: number }
export function parseString(text: string): { header?: { insUnits?: number }; entities: Entity[] }
export function denormalise(parsed: { entities: Entity[] }): Entity[]
