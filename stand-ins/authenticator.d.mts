export function codeAt(secret: string, seconds?: number): string;
