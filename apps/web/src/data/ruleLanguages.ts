// The languages in which rules are written come before whatever is judged by them.
import { fetchLanguages, languagesOf, type Language, type Rule } from '@dellum/core';
import { useEffect, useState } from 'react';

/**
 * What came from the server, once the languages of its rules are here. One that cannot be fetched is left to the server, which judges all.
 */
export async function withLanguages<Answer>(answer: Answer, rules: readonly (Rule | null | undefined)[]): Promise<Answer> {
  await fetchLanguages(languagesOf(rules)).catch(() => undefined);
  return answer;
}

/** Whether a language is here; asks for it. */
export function useLanguage(language: Language): boolean {
  const [here, setHere] = useState(false);
  useEffect(() => {
    let wanted = true;
    void fetchLanguages([language])
      .then(() => wanted && setHere(true))
      .catch(() => undefined);
    return () => void (wanted = false);
  }, [language]);
  return here;
}
