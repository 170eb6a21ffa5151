//! Pieces shared out over clusters: counts by size, similar things in each, the largest where the cluster is largest.
//!
//! How many each gets follows from the clusters' sizes, odd numbers first; which goes where is one assignment (Kuhn and Munkres, 1957) of
//! pieces to places.

use super::thing::Thing;
use crate::sketch::ClusterSize;
use pathfinding::kuhn_munkres::kuhn_munkres_min;
use pathfinding::matrix::Matrix;
use std::collections::BTreeMap;

/// A cluster that gets its share.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Share {
    /// How large it is.
    pub size: ClusterSize,
    /// Whether it lies by the focal photo.
    pub by_focal: bool,
}

/// What a cluster's size counts.
const fn weight(share: Share) -> usize {
    let size = match share.size {
        ClusterSize::Large => 5,
        ClusterSize::Medium => 3,
        ClusterSize::Small => 2,
    };
    size + share.by_focal as usize
}

/// For each cluster the pieces that it gets, bottom to top, as places in `things`. The same things are shared out in the same way each time.
pub fn shared_out(things: &[&Thing], clusters: &[Share]) -> Vec<Vec<usize>> {
    let mut shared = vec![Vec::new(); clusters.len()];
    if clusters.is_empty() || things.is_empty() {
        return shared;
    }
    let counts = counts(things.len(), clusters);
    // Largest first: a cluster's first place is for its main piece.
    let mut order: Vec<usize> = (0..things.len()).collect();
    order.sort_by(|a, b| {
        things[*b]
            .area()
            .total_cmp(&things[*a].area())
            .then(a.cmp(b))
    });
    let places: Vec<(usize, usize)> = counts
        .iter()
        .enumerate()
        .flat_map(|(c, n)| (0..*n).map(move |k| (c, k)))
        .collect();
    let mut copies: BTreeMap<&str, usize> = BTreeMap::new();
    let mut ranks: BTreeMap<usize, usize> = BTreeMap::new();
    let mut by_weight: Vec<usize> = (0..clusters.len()).collect();
    by_weight.sort_by_key(|c| (std::cmp::Reverse(weight(clusters[*c])), *c));
    for (rank, c) in by_weight.iter().enumerate() {
        ranks.insert(*c, rank);
    }
    let costs: Vec<Vec<i64>> = order
        .iter()
        .enumerate()
        .map(|(rank, n)| {
            let copy = copies.entry(things[*n].item.as_str()).or_insert(0);
            // Copies of one thing go round the clusters, so that each has something like the others.
            let turn = by_weight[*copy % by_weight.len()];
            *copy += 1;
            places
                .iter()
                .map(|(c, k)| {
                    let wanted = k * clusters.len() + ranks[c];
                    let off = wanted.abs_diff(rank) as i64;
                    off * off + if *c == turn { 0 } else { 12 }
                })
                .collect()
        })
        .collect();
    let Ok(matrix) = Matrix::from_rows(costs) else {
        return shared;
    };
    let (_, taken) = kuhn_munkres_min(&matrix);
    for (rank, place) in taken.into_iter().enumerate() {
        shared[places[place].0].push(order[rank]);
    }
    for cluster in &mut shared {
        cluster.sort_by(|a, b| bottom_first(things[*a], things[*b]).then(a.cmp(b)));
    }
    shared
}

/// Bases lie under, then what is larger; words on top.
fn bottom_first(a: &Thing, b: &Thing) -> std::cmp::Ordering {
    let layer = |t: &Thing| match t.form {
        crate::stash::Form::Phrase => 2,
        form if form.is_base() => 0,
        _ => 1,
    };
    layer(a).cmp(&layer(b)).then(b.area().total_cmp(&a.area()))
}

/// How many pieces each cluster gets: by size, each at least one where there are as many, odd numbers where that comes out.
fn counts(pieces: usize, clusters: &[Share]) -> Vec<usize> {
    let sum: usize = clusters.iter().map(|c| weight(*c)).sum();
    let share = |c: &Share| pieces as f64 * weight(*c) as f64 / sum as f64;
    let mut counts: Vec<usize> = clusters.iter().map(|c| share(c).floor() as usize).collect();
    let missing = |counts: &[usize], n: usize| share(&clusters[n]) - counts[n] as f64;
    while counts.iter().sum::<usize>() < pieces {
        let next = (0..clusters.len())
            .max_by(|a, b| missing(&counts, *a).total_cmp(&missing(&counts, *b)))
            .unwrap_or(0);
        counts[next] += 1;
    }
    // Eyes like three and five better than four: an even count gives one to another even one.
    let even: Vec<usize> = (0..counts.len())
        .filter(|n| counts[*n] > 0 && counts[*n].is_multiple_of(2))
        .collect();
    for pair in even.chunks_exact(2) {
        let (more, less) = if weight(clusters[pair[0]]) >= weight(clusters[pair[1]]) {
            (pair[0], pair[1])
        } else {
            (pair[1], pair[0])
        };
        counts[more] += 1;
        counts[less] -= 1;
    }
    counts
}
