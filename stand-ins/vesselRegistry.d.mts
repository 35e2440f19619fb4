export function layOutVesselRegistry(url: string, name?: string): Promise<string>;
