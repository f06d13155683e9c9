'use client';

// Below the frame, so that the way to every other page stays in sight.
export { default } from '../error';
