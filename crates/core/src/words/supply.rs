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

    fn join(&mut self, from: usize, to: usize, room: u32, cost: i64) {
        self.out[from].push(self.arcs.len());
        self.arcs.push(Arc { to, room, cost });
        self.out[to].push(self.arcs.len());
        self.arcs.push(Arc {
            to: from,
            room: 0,
            cost: -cost,
        });
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

/// Meets as many as can be, and these at the least cost (successive shortest paths: Busacker and Gowen, 1961).
pub(super) fn met(demands: &[Demand], stock: &[u32]) -> Met {
    let (source, sink) = (0, 1 + demands.len() + stock.len());
    let piece = |n: usize| 1 + demands.len() + n;
    let mut network = Network::new(sink + 1);
    for (n, demand) in demands.iter().enumerate() {
        network.join(source, 1 + n, demand.count, 0);
        for (kind, cost) in &demand.from {
            network.join(1 + n, piece(*kind), demand.count, *cost);
        }
    }
    let wanted = demands.iter().flat_map(|d| d.from.iter().map(|f| f.0));
    let mut kinds: Vec<usize> = wanted.collect();
    kinds.sort_unstable();
    kinds.dedup();
    for kind in kinds {
        network.join(piece(kind), sink, stock[kind], 0);
    }
    let mut cost = 0;
    while let Some(way) = network.cheapest(source, sink) {
        let room = way.iter().map(|n| network.arcs[*n].room).min();
        let room = room.unwrap_or_default();
        for n in way {
            cost += network.arcs[n].cost * i64::from(room);
            network.arcs[n].room -= room;
            network.arcs[n ^ 1].room += room;
        }
    }
    let from_source = network.out[source].iter();
    let lacking = from_source.map(|n| network.arcs[*n].room).collect();
    Met { cost, lacking }
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
