import type { PlacedPhotoDoc, PlanDoc, PrintDoc } from "@/api/client";
import { Field } from "@/shared/ui/Field";
import { LengthField } from "@/shared/ui/LengthField";
import { printsOn, unitOfPlan, withAside, withMain, withoutPrint, withPrint, withTurn } from "./model";

type Props = {
  plan: PlanDoc;
  print: PrintDoc;
  placed: PlacedPhotoDoc | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

/** What a print is: its name and size, whether it is the main one, locked to its place, or lies aside. */
export function PrintDetails({ plan, print, placed, change, mayChange }: Props) {
  const unit = unitOfPlan(plan);
  const set = (fields: Partial<Record<keyof PrintDoc, unknown>>, reason: string) =>
    change(withPrint(plan, print.id, fields), reason);
  const withPlace = printsOn(plan).filter((p) => !p.aside).length;
  const last = !print.aside && withPlace === 1;
  return (
    <fieldset disabled={!mayChange} className="grid gap-2 border-hairline border-t pt-2.5">
      <legend className="sr-only">Print {print.id}</legend>
      <h3>The print itself</h3>
      <div className="flex flex-wrap items-center gap-2">
        <LengthField
          label="width"
          value={print.w}
          unit={unit}
          least={0.5}
          most={36}
          width="4rem"
          onCommit={(w) => set({ w }, `print ${print.id} another size`)}
        />
        <LengthField
          label="height"
          value={print.h}
          unit={unit}
          least={0.5}
          most={36}
          width="4rem"
          onCommit={(h) => set({ h }, `print ${print.id} another size`)}
        />
        <button
          type="button"
          className="button px-2 py-0.5"
          onClick={() => change(withTurn(plan, print.id), `print ${print.id} turned`)}
        >
          Turn a quarter
        </button>
      </div>
      <Text
        label="Name"
        value={print.name ?? ""}
        onCommit={(name) => set({ name: name || undefined }, `print ${print.id} named`)}
      />
      <Text
        label="Note"
        value={print.note ?? ""}
        onCommit={(note) => set({ note: note || undefined }, `a note on print ${print.id}`)}
      />
      <div className="grid gap-1">
        <Check
          label="the main photo"
          checked={print.focal === true}
          onChange={(on) =>
            change(withMain(plan, on ? print.id : undefined), on ? `print ${print.id} the main photo` : "no main photo")
          }
        />
        <Check
          label="a file that can be printed at any size"
          checked={print.file === true}
          onChange={(on) =>
            set(
              { file: on || undefined, crop: undefined },
              on ? `print ${print.id} is a file` : `print ${print.id} is on paper`,
            )
          }
        />
        {placed && (
          <Check
            label="stays in this place"
            checked={print.place !== undefined && print.place !== null}
            onChange={(on) =>
              set(
                { place: on ? { block: placed.of, part: placed.part } : undefined },
                on ? `print ${print.id} locked to its place` : `print ${print.id} free to move`,
              )
            }
          />
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        {print.aside ? (
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => change(withAside(plan, print.id, false), `a place for print ${print.id}`)}
          >
            Give it a place
          </button>
        ) : (
          <button
            type="button"
            className="button px-2 py-0.5"
            disabled={last}
            onClick={() => change(withAside(plan, print.id, true), `print ${print.id} laid aside`)}
          >
            Lay it aside
          </button>
        )}
        <button
          type="button"
          className="button px-2 py-0.5"
          onClick={() => change(withoutPrint(plan, print.id), `print ${print.id} off the worktop`)}
        >
          Take it off the worktop
        </button>
      </div>
    </fieldset>
  );
}

function Check({ label, checked, onChange }: { label: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-6 items-center gap-1.5">
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} />
      {label}
    </label>
  );
}

/** A text that is kept when its field is left. */
function Text({ label, value, onCommit }: { label: string; value: string; onCommit: (text: string) => void }) {
  return (
    <Field
      key={value}
      label={label}
      defaultValue={value}
      maxLength={200}
      onBlur={(e) => e.target.value.trim() !== value && onCommit(e.target.value.trim())}
    />
  );
}
