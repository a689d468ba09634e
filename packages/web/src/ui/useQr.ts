import { toString as qrSvg } from 'qrcode';
import { useEffect, useState } from 'react';

/** The QR code of an address, as the source of a picture; null until it is made. */
export function useQr(address: string): string | null {
  const [source, setSource] = useState<string | null>(null);
  useEffect(() => {
    let isCurrent = true;
    setSource(null);
    if (address === '') return;
    void qrSvg(address, { type: 'svg', margin: 0 }).then((svg) => {
      if (isCurrent) setSource(`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`);
    });
    return () => {
      isCurrent = false;
    };
  }, [address]);
  return source;
}
