import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { transfer } from 'comlink';
import type { FilmFound, FilmWorker } from '../workers/film.worker';
import FilmWorkerFile from '../workers/film.worker?worker';
import { useWorker } from '../workers/use-worker';

/** When a picture was taken, s: a camera says it, a film has it written in. */
const momentOf = ({ captureTime, mediaTime }: VideoFrameCallbackMetadata): number =>
  captureTime === undefined ? mediaTime : captureTime / 1000;

/** Films become readings: from a file, or live from a camera of this device. */
export function useFilming() {
  const { working, failure, ask, stop } = useWorker<FilmWorker>(() => new FilmWorkerFile());
  const found = shallowRef<FilmFound>();
  const share = ref(0);
  const camera = shallowRef<MediaStream>();
  const cameraFailure = ref('');
  /** Seconds that the camera has filmed; undefined while it does not. */
  const filmed = ref<number>();
  let endLive: (() => void) | undefined;

  const forget = (): void => {
    for (const picture of found.value?.pictures ?? []) picture.close();
    found.value = undefined;
  };
  const mayDecode = typeof VideoDecoder !== 'undefined';

  /** @param trueRate pictures a second at which it was filmed, where it plays slower */
  async function read(file: Blob, trueRate: number | undefined): Promise<void> {
    forget();
    share.value = 0;
    if (mayDecode) {
      await ask(
        (worker, heard) =>
          worker.read(
            file,
            trueRate,
            heard((now: number) => (share.value = now)),
          ),
        (answer) => (found.value = answer),
      );
      return;
    }
    // Without HTTPS a browser decodes for no script: the film is played, and each picture taken as it is shown.
    const url = URL.createObjectURL(file);
    const video = document.createElement('video');
    Object.assign(video, { muted: true, playsInline: true, src: url });
    try {
      await new Promise<void>((ready, fail) => {
        video.onloadedmetadata = () => ready();
        video.onerror = () => fail(new Error('film-unreadable'));
      });
      const ended = new Promise<void>((done) => (video.onended = () => done()));
      await pictures(
        video,
        () => ended,
        1,
        () => (share.value = video.currentTime / (video.duration || 1)),
      );
    } catch {
      found.value = { answer: { trouble: 'film-unreadable' }, width: 0, height: 0, pictures: [] };
    } finally {
      URL.revokeObjectURL(url);
    }
  }

  /** Every picture that a video shows goes to the worker until it ends; then what they come to. */
  const pictures = (
    video: HTMLVideoElement,
    ended: () => Promise<void>,
    trueRate: number | undefined,
    onPicture: (at: number) => void,
  ): Promise<void> =>
    ask(
      async (worker) => {
        await worker.begin(video.videoWidth, video.videoHeight);
        let over = false;
        let from: number | undefined;
        let under = Promise.resolve();
        const next = (_: number, about: VideoFrameCallbackMetadata): void => {
          if (over) return;
          const at = momentOf(about);
          from ??= at;
          const since = at - from;
          onPicture(since);
          // One after the other: the worker takes them in their order.
          under = under.then(async () => {
            const picture = await createImageBitmap(video);
            await worker.add(since, transfer(picture, [picture]));
          });
          video.requestVideoFrameCallback(next);
        };
        video.requestVideoFrameCallback(next);
        await video.play();
        await ended();
        over = true;
        await under.catch(() => undefined);
        return worker.end(trueRate);
      },
      (answer) => (found.value = answer),
    );

  const closeCamera = (): void => {
    for (const track of camera.value?.getTracks() ?? []) track.stop();
    camera.value = undefined;
    filmed.value = undefined;
  };
  async function openCamera(): Promise<void> {
    cameraFailure.value = '';
    forget();
    try {
      camera.value = await navigator.mediaDevices.getUserMedia({
        video: { width: { ideal: 1280 }, frameRate: { ideal: 60 } },
      });
    } catch {
      cameraFailure.value = 'The camera can’t be used. Allow it in the browser, or film with a phone.';
    }
  }
  /** Films what the camera shows until `stopFilming`. */
  async function film(video: HTMLVideoElement): Promise<void> {
    filmed.value = 0;
    const ended = new Promise<void>((done) => (endLive = done));
    await pictures(
      video,
      () => ended,
      1,
      (at) => (filmed.value = at),
    );
    closeCamera();
  }
  const stopFilming = (): void => endLive?.();
  const canFilm = computed(() => typeof navigator.mediaDevices?.getUserMedia === 'function');

  onScopeDispose(() => {
    stop();
    forget();
    closeCamera();
  });
  return {
    working,
    failure,
    stop,
    found,
    share,
    forget,
    read,
    camera,
    cameraFailure,
    canFilm,
    openCamera,
    closeCamera,
    film,
    filmed,
    stopFilming,
  };
}
