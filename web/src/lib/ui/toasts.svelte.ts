// Short messages. An error stays until it is dismissed.
export interface Toast {
	readonly id: number;
	readonly level: 'done' | 'error';
	readonly text: string;
}

class Toasts {
	#next = 1;
	items = $state.raw<readonly Toast[]>([]);
	add(level: Toast['level'], text: string) {
		const id = this.#next++;
		this.items = [...this.items.slice(-3), { id, level, text }];
		if (level === 'done') setTimeout(() => this.dismiss(id), 5000);
	}
	dismiss = (id: number) => {
		this.items = this.items.filter((t) => t.id !== id);
	};
}
export const toasts = new Toasts();
