// A labelled input with its fault, for the small forms of the application.
import { Field, Input, type InputProps } from '@chakra-ui/react';
import { forwardRef } from 'react';

interface FormFieldProps extends InputProps {
  readonly label: string;
  readonly fault?: string | undefined;
  readonly help?: string;
}

export const FormField = forwardRef<HTMLInputElement, FormFieldProps>(function FormField({ label, fault, help, ...input }, ref) {
  return (
    <Field.Root invalid={fault !== undefined}>
      <Field.Label>{label}</Field.Label>
      <Input ref={ref} size="sm" bg="card" borderColor="slate.border" {...input} />
      {help && !fault && <Field.HelperText>{help}</Field.HelperText>}
      <Field.ErrorText role="alert">{fault}</Field.ErrorText>
    </Field.Root>
  );
});
