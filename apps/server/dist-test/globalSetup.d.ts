import type { TestProject } from 'vitest/node';
declare module 'vitest' {
    interface ProvidedContext {
        databaseUrl: string;
    }
}
export default function setup(project: TestProject): Promise<() => void>;
