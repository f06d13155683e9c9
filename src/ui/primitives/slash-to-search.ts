import { type RefObject, useEffect } from 'react';

/** “/” goes to the search field, unless somebody is typing. */
export function useSlashToSearch(field: RefObject<HTMLInputElement | null>) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && /^(INPUT|SELECT|TEXTAREA)$/.test(event.target.tagName);
      if (event.key !== '/' || typing || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      field.current?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [field]);
}
