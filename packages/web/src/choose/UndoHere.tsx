import { Undo2 } from 'lucide-react';
import type { OpenJob } from '../job/useJob.js';
import { useUndo } from '../job/useUndo.js';
import { Button } from '../ui/Button.js';

/** Takes back what was tried last, beside what it changed; nothing where nothing was tried. */
export function UndoHere({ job }: { readonly job: OpenJob }) {
  const { undo, what } = useUndo(job);
  if (undo === null) return null;
  return (
    <Button aria-label={`Step back: ${what}`} onPress={undo}>
      <Undo2 aria-hidden size={18} />
      Step back
    </Button>
  );
}
