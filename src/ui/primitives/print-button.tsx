'use client';

export function PrintButton({ main = true }: { main?: boolean }) {
  return (
    <button type="button" className="button" data-main={main || undefined} onClick={() => window.print()}>
      Print
    </button>
  );
}
