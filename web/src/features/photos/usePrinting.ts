import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type PrinterView, type PrintOptions, type PrintOrderView } from "@/api/client";
import { useJobNews } from "@/shared/events/useJobNews";
import { useOnce } from "@/shared/query/useOnce";

/** A page's files on sheets of a paper, as the page was last saved. */
export function usePrintSheets(page: string, revision: number, options: PrintOptions) {
  return useQuery({
    queryKey: ["print-sheets", page, revision, options],
    queryFn: () => api.printSheets(page, options),
    gcTime: 60_000,
  });
}

/** What of a page was sent to the printer, and the printer itself. Events of its jobs bring news. */
export function usePrinting(page: string) {
  const queries = useQueryClient();
  const orders = useQuery({ queryKey: ["print-orders", page], queryFn: () => api.printOrders(page) });
  const printer = useQuery({ queryKey: ["printer"], queryFn: api.printer });
  const look = () => {
    queries.invalidateQueries({ queryKey: ["print-orders", page] });
    queries.invalidateQueries({ queryKey: ["printer"] });
  };
  const jobs = (orders.data ?? []).map((o) => o.job);
  useJobNews(jobs, look);
  const send = useOnce((options: PrintOptions, key) => api.sendToPrinter(page, options, key), look);
  const goOn = useMutation({ mutationFn: (order: string) => api.goOnPrinting(order), onSettled: look });
  const stop = useMutation({ mutationFn: (order: PrintOrderView) => api.cancelJob(order.job), onSettled: look });
  const setPrinter = useMutation({ mutationFn: (to: PrinterView) => api.setPrinter(to), onSettled: look });
  return { orders, printer, send, goOn, stop, setPrinter };
}
