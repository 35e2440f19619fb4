// Forms checked by the DTO that the server checks them with; the server's faults land at their inputs.
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { useState, type BaseSyntheticEvent } from 'react';
import { useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import { isProblem, problemWords } from '../data/problem.js';

export interface DtoForm<T extends FieldValues> extends Omit<UseFormReturn<T>, 'handleSubmit'> {
  /** What is wrong with an input, or undefined. */
  fault(name: Path<T>): string | undefined;
  /** Submits; what the server refuses is shown at its input or above the form. */
  submit(send: (values: T) => Promise<unknown>): (event?: BaseSyntheticEvent) => Promise<void>;
  readonly problem: string | undefined;
}

export function useDtoForm<T extends FieldValues>(dto: new () => T, defaultValues: DefaultValues<NoInfer<T>>): DtoForm<T> {
  // The resolver's own type wants every member of a class; a DTO is one.
  const form = useForm<T>({ resolver: classValidatorResolver(dto as never), defaultValues });
  const [problem, setProblem] = useState<string>();
  const fault = (name: Path<T>): string | undefined => {
    const { error } = form.getFieldState(name, form.formState);
    return error?.message ?? (error && 'This is not complete.');
  };
  const submit = (send: (values: T) => Promise<unknown>) =>
    form.handleSubmit(async (values) => {
      setProblem(undefined);
      try {
        await send(values);
      } catch (error) {
        const faults = isProblem(error) ? Object.entries(error.faults ?? {}).filter(([name]) => name in values) : [];
        for (const [name, message] of faults) form.setError(name as Path<T>, { message });
        if (faults.length === 0) setProblem(problemWords(error));
      }
    });
  return { ...form, fault, submit, problem };
}
