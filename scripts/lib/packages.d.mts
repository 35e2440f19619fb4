export const root: string;
export const chromiumPath: string;
export function ensureChromium(): void;
export function ensureModules(): void;
export function ensureBuilt(): void;
