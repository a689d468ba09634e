import { useAppDispatch, useAppSelector } from '../base/store.js';
import { type AppearanceSetting, appearanceChosen } from '../ui/appearanceSlice.js';
import { Choice } from '../ui/Choice.js';

const LOOKS = [
  { value: 'system', label: 'System' },
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
  { value: 'workshop', label: 'Workshop' },
] as const satisfies readonly { value: AppearanceSetting; label: string }[];

/** How the application looks on this device. */
export function LookChoice() {
  const dispatch = useAppDispatch();
  const setting = useAppSelector((state) => state.appearance.setting);
  return (
    <>
      <span aria-hidden>Theme</span>
      <Choice
        label="Theme"
        isLabelHidden
        value={setting}
        options={LOOKS}
        onChange={(chosen) => dispatch(appearanceChosen(chosen))}
      />
    </>
  );
}
