import { page } from '$app/state';

/** One step of a work order fills the screen: nothing else is at the thumb or above it. */
export const atStep = () => page.route.id === '/jobs/[id]/step';
