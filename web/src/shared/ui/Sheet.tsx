import { Dialog } from "radix-ui";

type Props = {
  title: string;
  /** What it is about, in a sentence or two. */
  about?: React.ReactNode;
  width?: "narrow" | "middle" | "wide" | "whole";
  /** Along the right side of the window, rather than in its middle. */
  beside?: boolean;
  /** Without it only its own buttons close it. */
  onClose?: () => void;
  /** What stands beside the title. */
  heading?: React.ReactNode;
  children: React.ReactNode;
};

const WIDTHS = { narrow: "w-[26rem]", middle: "w-[30rem]", wide: "w-[42rem]", whole: "w-[66rem]" };

/** A sheet laid over the screen. What lies under it waits until it is closed. */
export function Sheet({ title, about, width = "narrow", beside = false, onClose, heading, children }: Props) {
  const place = beside
    ? "inset-y-0 right-0 flex flex-col gap-2 border-hairline border-l bg-sheet p-4"
    : "sheet top-1/2 left-1/2 max-h-[94dvh] -translate-x-1/2 -translate-y-1/2 overflow-y-auto p-5";
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose?.()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content
          {...(about ? {} : { "aria-describedby": undefined })}
          className={`fixed z-20 max-w-[96vw] ${WIDTHS[width]} ${place}`}
        >
          <div className="flex flex-wrap items-center gap-4">
            <Dialog.Title className="text-[17px]">{title}</Dialog.Title>
            {heading}
          </div>
          {about && <Dialog.Description className="mt-1 text-second">{about}</Dialog.Description>}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Closes the sheet that it lies on. */
export function CloseSheet({ children = "Close", className = "" }: { children?: React.ReactNode; className?: string }) {
  return <Dialog.Close className={`button ${className}`}>{children}</Dialog.Close>;
}
