//! Which pieces go to which letters: as many letters as can be, at the least cost.

use std::collections::VecDeque;

/// So many of one letter, each to be had from some kinds of piece at a cost.
#[derive(Clone, Debug)]
pub(super) struct Demand {
    /// The kind of piece, and what using one costs.
    pub(super) from: Vec<(usize, i64)>,
    pub(super) count: u32,
}

/// How well demands can be met.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Met {
    /// What it costs in all.
    pub(super) cost: i64,
    /// Of each demand how many stay without a piece.
    pub(super) lacking: Vec<u32>,
}

impl Met {
    pub(super) fn wholly(&self) -> bool {
        self.lacking.iter().all(|n| *n == 0)
    }
}

struct Arc {
    to: usize,
    room: u32,
    cost: i64,
}

/// Arcs and their ways back, in pairs.
struct Network {
    arcs: Vec<Arc>,
    out: Vec<Vec<usize>>,
}

impl Network {
    fn new(nodes: usize) -> Network {
        Network {
            arcs: Vec::new(),
            out: vec![Vec::new(); nodes],
        }
    }

    /// A new arc; its number.
    fn join(&mut self, from: usize, to: usize, room: u32, cost: i64) -> usize {
        let arc = self.arcs.len();
        self.out[from].push(arc);
        self.arcs.push(Arc { to, room, cost });
        self.out[to].push(self.arcs.len());
        self.arcs.push(Arc {
            to: from,
            room: 0,
            cost: -cost,
        });
        arc
    }

    /// Sends as much along some arcs as all of them have room for; that much.
    fn send(&mut self, way: &[usize]) -> u32 {
        let room = way.iter().map(|n| self.arcs[*n].room).min();
        let room = room.unwrap_or_default();
        for n in way {
            self.arcs[*n].room -= room;
            self.arcs[n ^ 1].room += room;
        }
        room
    }

    /// The cheapest way with room from one node to another, as the arcs that reach each node.
    fn cheapest(&self, from: usize, to: usize) -> Option<Vec<usize>> {
        let mut cost = vec![i64::MAX; self.out.len()];
        let mut by = vec![usize::MAX; self.out.len()];
        let mut waiting = vec![false; self.out.len()];
        let mut queue = VecDeque::from([from]);
        cost[from] = 0;
        while let Some(at) = queue.pop_front() {
            waiting[at] = false;
            for &n in &self.out[at] {
                let arc = &self.arcs[n];
                if arc.room > 0 && cost[at] + arc.cost < cost[arc.to] {
                    cost[arc.to] = cost[at] + arc.cost;
                    by[arc.to] = n;
                    if !waiting[arc.to] {
                        waiting[arc.to] = true;
                        queue.push_back(arc.to);
                    }
                }
            }
        }
        if cost[to] == i64::MAX {
            return None;
        }
        let (mut way, mut at) = (Vec::new(), to);
        while at != from {
            way.push(by[at]);
            at = self.arcs[by[at] ^ 1].to;
        }
        Some(way)
    }
}

/// Meets as many as can be, and these at the least cost (successive shortest paths: Busacker and Gowen, 1961). What costs nothing is given out
/// first: no way back along such arcs is negative, so the paths that follow are still the cheapest.
pub(super) fn met(demands: &[Demand], stock: &[u32]) -> Met {
    if are_met_for_nothing(demands, stock) {
        return Met {
            cost: 0,
            lacking: vec![0; demands.len()],
        };
    }
    let (source, sink) = (0, 1 + demands.len() + stock.len());
    let piece = |n: usize| 1 + demands.len() + n;
    let mut network = Network::new(sink + 1);
    let mut to_sink: Vec<Option<usize>> = vec![None; stock.len()];
    let mut for_nothing = Vec::new();
    let mut to_demand = Vec::with_capacity(demands.len());
    for (n, demand) in demands.iter().enumerate() {
        let wanted = network.join(source, 1 + n, demand.count, 0);
        to_demand.push(wanted);
        for (kind, cost) in &demand.from {
            let given = network.join(1 + n, piece(*kind), demand.count, *cost);
            let last = *to_sink[*kind]
                .get_or_insert_with(|| network.join(piece(*kind), sink, stock[*kind], 0));
            if *cost == 0 {
                for_nothing.push([wanted, given, last]);
            }
        }
    }
    for way in for_nothing {
        network.send(&way);
    }
    let mut cost = 0;
    let is_open = |network: &Network| to_demand.iter().any(|n| network.arcs[*n].room > 0);
    while is_open(&network) {
        let Some(way) = network.cheapest(source, sink) else {
            break;
        };
        let each: i64 = way.iter().map(|n| network.arcs[*n].cost).sum();
        cost += each * i64::from(network.send(&way));
    }
    let lacking = to_demand.iter().map(|n| network.arcs[*n].room).collect();
    Met { cost, lacking }
}

/// Whether each can have what costs nothing when all take it in turn. Where this fails, another order may do.
fn are_met_for_nothing(demands: &[Demand], stock: &[u32]) -> bool {
    let mut left = stock.to_vec();
    demands.iter().all(|demand| {
        let mut wanted = demand.count;
        for (kind, _) in demand.from.iter().filter(|f| f.1 == 0) {
            let taken = wanted.min(left[*kind]);
            left[*kind] -= taken;
            wanted -= taken;
        }
        wanted == 0
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn demand(count: u32, from: &[(usize, i64)]) -> Demand {
        Demand {
            from: from.to_vec(),
            count,
        }
    }

    #[test]
    fn a_piece_goes_where_nothing_else_will_do() {
        // The first could take either, the second only the first kind.
        let found = met(
            &[demand(1, &[(0, 0), (1, 2)]), demand(1, &[(0, 0)])],
            &[1, 1],
        );
        assert_eq!(found.lacking, [0, 0]);
        assert_eq!(found.cost, 2);
    }

    #[test]
    fn what_lacks_is_as_little_as_can_be() {
        let found = met(
            &[demand(3, &[(0, 0)]), demand(2, &[(0, 0), (1, 5)])],
            &[3, 1],
        );
        assert_eq!(found.lacking.iter().sum::<u32>(), 1);
        assert_eq!(found.cost, 5);
    }
}
