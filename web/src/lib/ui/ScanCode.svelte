<script lang="ts">
	// Reads a serial number from its code with the camera, where the browser offers that: no
	// library and no network, and no button where it does not.
	import { Button } from 'flowbite-svelte';

	interface Detector {
		detect(of: HTMLVideoElement): Promise<readonly { rawValue: string }[]>;
	}
	interface Offered {
		BarcodeDetector?: new () => Detector;
	}

	let { onread, about }: { onread: (text: string) => void; about: string } = $props();
	const Offer = (globalThis as Offered).BarcodeDetector;
	const offered = Offer !== undefined && 'mediaDevices' in navigator;
	let open = $state(false);
	let fault = $state('');
	let video = $state<HTMLVideoElement>();

	$effect(() => {
		if (!open || !video || !Offer) return;
		const screen = video;
		let over = false;
		let stream: MediaStream | undefined;
		const look = async () => {
			try {
				stream = await navigator.mediaDevices.getUserMedia({
					video: { facingMode: 'environment' }
				});
				screen.srcObject = stream;
				await screen.play();
				const reader = new Offer();
				while (!over) {
					const [code] = await reader.detect(screen);
					if (code?.rawValue) {
						onread(code.rawValue.trim().slice(0, 80));
						open = false;
						return;
					}
					await new Promise((done) => setTimeout(done, 150));
				}
			} catch (e) {
				if (!over)
					fault =
						e instanceof DOMException && e.name === 'NotAllowedError'
							? 'The camera may not be used here: allow it in the browser, or type the number.'
							: 'No camera answers: type the number.';
			}
		};
		fault = '';
		void look();
		return () => {
			over = true;
			for (const t of stream?.getTracks() ?? []) t.stop();
		};
	});
</script>

{#if offered}
	{#if !open}
		<Button
			color="alternative"
			aria-label="Read its code with the camera: {about}"
			onclick={() => (open = true)}>Read its code with the camera</Button
		>
	{:else}
		<div class="grid gap-2 border-l-4 border-line pl-3">
			<p>Hold the code of the serial number into the picture.</p>
			<video
				bind:this={video}
				class="w-full bg-ink"
				playsinline
				muted
				aria-label="What the camera sees"
			></video>
			{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
			<div>
				<Button color="alternative" onclick={() => (open = false)}>Put the camera away</Button>
			</div>
		</div>
	{/if}
{/if}
