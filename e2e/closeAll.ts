import type { BrowserContext } from '@playwright/test';

/** Closes some browsers; answers that a test has held back until now come to nothing. */
export async function closeAll(contexts: readonly BrowserContext[]): Promise<void> {
  for (const context of contexts) {
    for (const page of context.pages()) await page.unrouteAll({ behavior: 'ignoreErrors' });
    await context.close();
  }
}
