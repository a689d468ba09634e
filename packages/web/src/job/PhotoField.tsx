import { Camera } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { useBy } from '../person/useBy.js';
import { FileButton } from '../ui/FileButton.js';
import { Quiet, Row } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { keepPhoto } from './keepPhoto.js';

const Picture = styled.img`
  display: block;
  max-width: min(100%, 22rem);
  max-height: 14rem;
  margin: 0.5rem 0;
  border: var(--rule) solid var(--line-strong);
`;

interface PhotoFieldProps {
  /** Id of the engine. */
  readonly job: string;
  /** What the button is called for a screen reader. */
  readonly label: string;
  /** Id of the photo that is kept; null: none. */
  readonly photo: string | null;
  /** What is to be seen on it. */
  readonly alt: string;
  /** Told once another one is on the server. */
  readonly onKept: (photo: string) => void;
}

/** A photo of something: shown, and taken or chosen; a fault is told, and what was there stays. */
export function PhotoField({ job, label, photo, alt, onKept }: PhotoFieldProps) {
  const by = useBy();
  const [sending, setSending] = useState<{ busy: boolean; fault: string | null }>({ busy: false, fault: null });
  const take = async (file: File) => {
    setSending({ busy: true, fault: null });
    try {
      onKept(await keepPhoto(job, by, file));
      setSending({ busy: false, fault: null });
    } catch (error) {
      setSending({ busy: false, fault: refusalInWords(error) });
    }
  };
  return (
    <>
      {photo !== null && <Picture src={`/api/jobs/${job}/photos/${photo}`} alt={alt} />}
      <Row style={{ margin: '0.4rem 0' }}>
        <FileButton label={label} accept="image/*" onChoose={(file) => void take(file)}>
          <Camera aria-hidden size={18} />
          {photo !== null ? 'Another photo' : 'Add photo'}
        </FileButton>
        {sending.busy && <Quiet role="status">Saving the photo …</Quiet>}
        {sending.fault !== null && <p role="alert">{sending.fault}</p>}
      </Row>
    </>
  );
}
