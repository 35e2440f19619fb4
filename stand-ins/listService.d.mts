export function startListService(): Promise<{ readonly base: string; readonly list: { code: string; name: string }[]; stop(): void }>;
