import { AlertDialog } from "radix-ui";

type Props = {
  open: boolean;
  title: string;
  text: string;
  yes: string;
  /** What the way back is called. */
  no?: string;
  onYes: () => void;
  onClose: () => void;
};

/** Asks before something that others notice. */
export function Confirm({ open, title, text, yes, no = "Cancel", onYes, onClose }: Props) {
  return (
    <AlertDialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
        <AlertDialog.Content className="sheet fixed top-1/2 left-1/2 z-20 w-[28rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 p-5">
          <AlertDialog.Title className="text-[17px]">{title}</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">{text}</AlertDialog.Description>
          <div className="mt-4 flex justify-end gap-2">
            <AlertDialog.Cancel className="button">{no}</AlertDialog.Cancel>
            <AlertDialog.Action className="button button-first" onClick={onYes}>
              {yes}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
