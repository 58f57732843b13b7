/** What a hand would do at a device that is only simulated; a real one has none of these. */
import type { Devices } from "../../../devices/useDevices.ts";
import { backToStep } from "../focus.ts";
import { Button } from "../../../ui/fields/form.tsx";

interface Props {
  devices: Devices;
  device: "scale" | "thermometer";
  /** What each press is called, and what the device is told. */
  presses: readonly (readonly [say: string, line: string])[];
}

export function Hands({ devices, device, presses }: Props) {
  if (!devices[device]?.hello?.simulated) return null;
  return (
    <div className="no-print mt-5 flex flex-wrap items-center gap-2 rounded border border-dashed border-rule-strong px-3 py-2 text-small">
      <span className="text-pine-soft">This {device} is a stand-in. Pretend to:</span>
      {presses.map(([say, line]) => (
        <Button
          key={say}
          small
          onClick={() => {
            void devices.tell(device, `hand ${line}`);
            backToStep();
          }}
        >
          {say}
        </Button>
      ))}
    </div>
  );
}
