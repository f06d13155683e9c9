'use client';

export function PrintButton() {
  return (
    <button type="button" className="button" data-main onClick={() => window.print()}>
      Print
    </button>
  );
}
