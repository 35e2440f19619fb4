// A button whose act takes a while. It does nothing more until that is done, and keeps the focus: a disabled button would lose it, and
// whoever works by keys would begin again at the top of the page.
import { AbsoluteCenter, Button, Span, Spinner, type ButtonProps } from '@chakra-ui/react';

export function ActButton({ loading = false, onClick, children, ...button }: ButtonProps) {
  return (
    <Button
      {...button}
      {...(loading && { 'aria-disabled': true, 'aria-busy': true })}
      onClick={(event) => {
        if (loading) event.preventDefault();
        else onClick?.(event);
      }}
    >
      {loading && (
        <AbsoluteCenter display="inline-flex">
          <Spinner size="inherit" color="inherit" />
        </AbsoluteCenter>
      )}
      <Span display="inherit" gap="inherit" alignItems="center" opacity={loading ? 0 : undefined}>
        {children}
      </Span>
    </Button>
  );
}
