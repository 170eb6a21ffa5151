//! A sheet's cuts as a maker makes them: a setting, how often, and what is then in her hand.

use super::job::Area;
use super::sheet::PlannedSheet;
use crate::geometry::Axis;
use crate::length::{Length, Unit};

/// Cuts at one setting, one after the other.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CutStep {
    /// Its first cut and how many there are, by their places in the sheet's order.
    pub first: usize,
    /// How many.
    pub times: usize,
    /// What the trimmer is set to, in ticks.
    pub setting: i64,
    /// From the part's other edge: the trimmer has no mark for the setting from this one.
    pub from_far_edge: bool,
    /// Along which way the blade runs.
    pub along: Axis,
    /// Longer than the trimmer reaches.
    pub beyond_reach: bool,
    /// Pieces that are done with it.
    pub done: Vec<String>,
    /// What to do, in words.
    pub text: String,
}

/// What the trimmer can do, in ticks.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Trimmer {
    /// The longest cut.
    pub reach: i64,
    /// The smallest step.
    pub finest: i64,
}

impl Default for Trimmer {
    fn default() -> Trimmer {
        Trimmer {
            reach: Length::inches(12, 1).ticks(),
            finest: Length::inches(1, 16).ticks(),
        }
    }
}

impl PlannedSheet {
    /// Its cuts as steps.
    #[must_use]
    pub fn steps(&self, trimmer: Trimmer, unit: Unit) -> Vec<CutStep> {
        let parts = self.parts();
        let mut steps: Vec<CutStep> = Vec::new();
        for (n, cut) in self.cuts.iter().enumerate() {
            let Some(area) = parts.get(cut.part.as_str()) else {
                continue;
            };
            let whole = if cut.along == Axis::X { area.h } else { area.w };
            let far = whole - cut.at;
            let on_mark = |at: i64| at % trimmer.finest == 0;
            let from_far_edge = !on_mark(cut.at) && on_mark(far);
            let setting = if from_far_edge { far } else { cut.at };
            let long = if cut.along == Axis::X { area.w } else { area.h };
            let done = cut.makes.iter().filter_map(|p| self.piece_at(p));
            let done: Vec<String> = done.map(|p| p.name.clone()).collect();
            let follows = steps.last_mut().filter(|s| {
                s.setting == setting
                    && s.along == cut.along
                    && s.from_far_edge == from_far_edge
                    && s.first + s.times == n
            });
            if let Some(step) = follows {
                step.times += 1;
                step.done.extend(done);
                continue;
            }
            steps.push(CutStep {
                first: n,
                times: 1,
                setting,
                from_far_edge,
                along: cut.along,
                beyond_reach: long > trimmer.reach,
                done,
                text: String::new(),
            });
        }
        for step in &mut steps {
            let part = parts.get(self.cuts[step.first].part.as_str());
            step.text = told(step, part.copied(), trimmer, unit);
        }
        steps
    }
}

fn told(step: &CutStep, part: Option<Area>, trimmer: Trimmer, unit: Unit) -> String {
    let text = |ticks: i64| Length::from_ticks(ticks).to_ruler_text(unit);
    let edge = match (step.along, step.from_far_edge) {
        (Axis::X, false) => "top",
        (Axis::X, true) => "bottom",
        (Axis::Y, false) => "left",
        (Axis::Y, true) => "right",
    };
    let way = if step.along == Axis::X {
        "right across"
    } else {
        "from top to bottom"
    };
    let take = part
        .filter(|_| step.first > 0)
        .map_or_else(String::new, |p| {
            format!("The part of {} by {}: ", text(p.w), text(p.h))
        });
    let how = if step.beyond_reach {
        format!(
            "longer than the trimmer reaches ({}): score it along a ruler or fold it, {} from the {edge}, then cut by hand.",
            text(trimmer.reach),
            text(step.setting)
        )
    } else if step.times > 1 {
        format!(
            "from the {edge}, {way}. Leave it set, and push the paper up to the stop each time."
        )
    } else {
        format!("from the {edge}, {way}.")
    };
    let mut letters = (take + &how).chars().collect::<Vec<_>>();
    if let Some(first) = letters.first_mut() {
        first.make_ascii_uppercase();
    }
    letters.into_iter().collect()
}
