//! Which blocks are shown: those that are sure enough, once each.

use crate::blocks::Read;
use crate::judging::{Evidence, is_soft, lie_in_one_another};
use crate::sureness;
use crate::writing::Extent;

/// What is kept of what was thought of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Keep {
    /// What is sure enough.
    Sure,
    /// All of it.
    All,
}

/// A block that is less sure is wrong more often than not by far: taking it away costs more than drawing it anew.
const LEAST: f64 = 0.3;
/// In a clear picture, where what was traced is this sure in the mean, the tracing is believed down to a little, and what the network
/// alone saw must be likelier than not.
const CLEAR: f64 = 0.45;
const LEAST_TRACED: f64 = 0.08;
const LEAST_SEEN: f64 = 0.5;

/// Blocks that are kept, each as sure as it is, with what names others put right.
pub(crate) fn kept(judged: Vec<(Read, Evidence)>, keep: Keep) -> (Vec<Read>, Vec<Evidence>) {
    let sure = judged.iter().map(|(b, e)| sureness::sure(b.kind, e));
    let sure: Vec<f64> = sure.collect();
    let stays = match keep {
        Keep::Sure => sure_enough(&judged, &sure),
        Keep::All => vec![true; judged.len()],
    };
    let mut count = 0;
    let places: Vec<Option<usize>> = stays
        .into_iter()
        .map(|stays| {
            count += usize::from(stays);
            stays.then(|| count - 1)
        })
        .collect();
    let place = |of: Option<usize>| of.and_then(|i| places[i]);
    let all = judged.into_iter().zip(sure).zip(&places);
    let kept = all.filter(|(_, place)| place.is_some());
    kept.map(|(((block, evidence), sure), _)| {
        let (under, host) = (place(block.under), place(block.host));
        // A mat whose photo is gone frames nothing.
        let is_bare = block.kind == "mat" && under.is_none();
        let kind = if is_bare { "paper" } else { block.kind };
        let block = Read {
            kind,
            sure,
            under,
            host,
            ..block
        };
        (block, evidence)
    })
    .unzip()
}

fn sure_enough(judged: &[(Read, Evidence)], sure: &[f64]) -> Vec<bool> {
    let is_traced = |i: usize| judged[i].1.traced > 0.0;
    let traced: Vec<f64> = (0..judged.len())
        .filter(|&i| is_traced(i))
        .map(|i| sure[i])
        .collect();
    let mean = traced.iter().sum::<f64>() / traced.len().max(1) as f64;
    let least = |i: usize| match (mean >= CLEAR, is_traced(i)) {
        (false, _) => LEAST,
        (true, true) => LEAST_TRACED,
        (true, false) => LEAST_SEEN,
    };
    let mut stays: Vec<bool> = (0..judged.len()).map(|i| sure[i] >= least(i)).collect();
    // Of words, writing or clusters that lie in one another the surest stays: a letter is no title of its own.
    let soft = (0..judged.len()).filter(|&i| stays[i] && is_soft(judged[i].0.kind));
    let mut order: Vec<usize> = soft.collect();
    order.sort_by(|&a, &b| sure[b].total_cmp(&sure[a]));
    let mut taken: Vec<Extent> = Vec::new();
    for i in order {
        let e = judged[i].0.form.extent();
        stays[i] = !taken.iter().any(|o| lie_in_one_another(o, &e));
        if stays[i] {
            taken.push(e);
        }
    }
    stays
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::blocks::Form;

    fn block(kind: &'static str, at: f64, size: f64, under: Option<usize>) -> Read {
        Read {
            kind,
            form: Form::Ink(Extent {
                x0: at,
                y0: at,
                x1: at + size,
                y1: at + size,
            }),
            sure: 0.9,
            under,
            host: None,
        }
    }

    fn clearly() -> Evidence {
        Evidence {
            traced: 0.9,
            own: 1.0,
            edge: 1.0,
            least_edge: 1.0,
            shows: 1.0,
            size: -2.0,
            ..Evidence::default()
        }
    }

    fn hardly() -> Evidence {
        Evidence {
            traced: 0.5,
            page: 1.0,
            around: 1.0,
            size: -8.0,
            ..Evidence::default()
        }
    }

    #[test]
    fn shreds_go_and_what_named_them_is_put_right() {
        let judged = vec![
            (block("paper", 10.0, 9.0, None), hardly()),
            (block("mat", 100.0, 400.0, Some(2)), clearly()),
            (block("photo", 120.0, 360.0, None), clearly()),
        ];
        let (blocks, _) = kept(judged.clone(), Keep::Sure);
        let kinds: Vec<&str> = blocks.iter().map(|b| b.kind).collect();
        assert_eq!(kinds, ["mat", "photo"]);
        assert_eq!(blocks[0].under, Some(1));
        assert_eq!(kept(judged, Keep::All).0.len(), 3);
    }

    #[test]
    fn a_mat_that_frames_nothing_is_a_paper() {
        let judged = vec![
            (block("mat", 100.0, 400.0, Some(1)), clearly()),
            (block("photo", 120.0, 3.0, None), hardly()),
        ];
        assert_eq!(kept(judged, Keep::Sure).0[0].kind, "paper");
    }

    #[test]
    fn of_two_sights_of_one_title_the_surest_stays() {
        let letter = Evidence {
            own: 0.6,
            ..clearly()
        };
        let judged = vec![
            (block("title", 300.0, 40.0, None), letter),
            (block("title", 290.0, 300.0, None), clearly()),
        ];
        let (blocks, _) = kept(judged, Keep::Sure);
        assert_eq!(blocks.len(), 1);
        assert_eq!(blocks[0].form.extent().w(), 300.0);
    }
}
