import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type CutOrderView, type MachineView } from "@/api/client";
import { useJobNews } from "@/shared/events/useJobNews";
import { useOnce } from "@/shared/query/useOnce";

/** What of a page was sent to the cutting machine, and the machine itself. Events of its jobs bring news. */
export function useMachine(page: string) {
  const queries = useQueryClient();
  const orders = useQuery({ queryKey: ["cut-orders", page], queryFn: () => api.cutOrders(page) });
  const machine = useQuery({ queryKey: ["cutting-machine"], queryFn: api.cuttingMachine });
  const look = () => {
    queries.invalidateQueries({ queryKey: ["cut-orders", page] });
    queries.invalidateQueries({ queryKey: ["cutting-machine"] });
  };
  const jobs = (orders.data ?? []).map((o) => o.job);
  useJobNews(jobs, look);
  const send = useOnce((_: undefined, key) => api.sendToMachine(page, key), look);
  const goOn = useMutation({ mutationFn: (order: string) => api.goOnCutting(order), onSettled: look });
  const stop = useMutation({ mutationFn: (order: CutOrderView) => api.cancelJob(order.job), onSettled: look });
  const setMachine = useMutation({ mutationFn: (to: MachineView) => api.setCuttingMachine(to), onSettled: look });
  return { orders, machine, send, goOn, stop, setMachine };
}
