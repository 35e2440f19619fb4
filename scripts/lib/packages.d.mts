export const root: string;
export function chromiumPath(): string;
export function ensureChromium(): void;
export function ensureModules(): void;
export function ensureBuilt(): void;
