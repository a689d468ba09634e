/** A gauge on a cable: what it sends, until it is let go. */
export interface GaugePort {
  readonly name: string;
  /** Starts listening; fails where the gauge cannot be opened. */
  open(onText: (chunk: string) => void, onEnd: (fault: string | null) => void): Promise<void>;
  close(): Promise<void>;
}

/** The part of Web Serial that is used here: the types of the page's own language know nothing of it. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}
interface Serial {
  requestPort(): Promise<SerialPort>;
}

/** Web Serial where the browser has it, else null. */
function serial(): Serial | null {
  return (navigator as Navigator & { serial?: Serial }).serial ?? null;
}

/** True if a gauge can be plugged in here: few browsers let a page read a serial port. */
export function hasSerial(): boolean {
  return serial() !== null;
}

/** Lets the fitter choose a serial port of this device. @returns null where none was chosen */
export async function chosenPort(baud: number): Promise<GaugePort | null> {
  let port: SerialPort;
  try {
    port = await serial()!.requestPort();
  } catch (error) {
    // Closing the list without choosing is no fault.
    if (error instanceof DOMException && error.name === 'NotFoundError') return null;
    throw error;
  }
  let reader: ReadableStreamDefaultReader<string> | null = null;
  return {
    name: 'the gauge on the cable',
    open: async (onText, onEnd) => {
      await port.open({ baudRate: baud });
      const text = port.readable!.pipeThrough(
        new TextDecoderStream() as unknown as TransformStream<Uint8Array, string>,
      );
      const reading = text.getReader();
      reader = reading;
      const listen = async () => {
        for (;;) {
          const { value, done } = await reading.read();
          if (done) return;
          onText(value);
        }
      };
      listen().then(
        () => onEnd(null),
        (error: Error) => onEnd(error.message),
      );
    },
    close: async () => {
      await reader?.cancel();
      // A stream that was broken off by the cable has closed its port.
      await port.close().catch(() => {});
    },
  };
}
