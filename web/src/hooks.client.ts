import type { HandleClientError } from '@sveltejs/kit';

export const handleError: HandleClientError = ({ error }) => {
	console.error(error);
	return {
		message: 'This page met a fault of its own. Reload it; nothing that was saved is lost.'
	};
};
