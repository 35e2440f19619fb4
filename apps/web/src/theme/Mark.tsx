// The mark of Dellum: the corners of an index card.
export function Mark({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" fill="none" stroke="currentColor" strokeWidth="2.6" aria-hidden>
      <path d="M9 21H5V3h14v18h-4" />
    </svg>
  );
}
