'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import type { Message, UndoAction } from './toast-corner';

const ToastCorner = dynamic(() => import('./toast-corner').then((module) => module.ToastCorner), { ssr: false });

let tell: (message: Message) => void = () => undefined;

/** Says what was done, with Undo. @param undo what undoes the change, for the page's undo action */
export const tellUndoable = (text: string, undo: Message['undo']): void => tell({ text, undo });

/** Messages in the corner of the page; loaded with the first of them. @param action undoes a change */
export function Toasts({ action }: { action: UndoAction }) {
  const [messages, setMessages] = useState<readonly Message[]>([]);
  useEffect(() => {
    tell = (message) => setMessages((before) => [...before, message]);
  }, []);
  return messages.length > 0 ? <ToastCorner messages={messages} action={action} /> : null;
}
