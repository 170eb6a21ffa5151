//! A title, writing, clusters and accents, where there is room for them.

use super::{Area, Maker, eighth};
use rand::Rng;
use serde_json::json;

impl Maker<'_> {
    /// The first of some tries that keeps clear of what lies there.
    fn free(&mut self, left: f64, w: f64, h: f64) -> Option<Area> {
        let (page_w, page_h) = self.page;
        if w > page_w - 1.2 || h > page_h - 1.2 {
            return None;
        }
        for _ in 0..60 {
            let area = Area {
                x: left + eighth(self.luck.random_range(0.6..page_w - w - 0.5)),
                y: eighth(self.luck.random_range(0.6..page_h - h - 0.5)),
                w,
                h,
            };
            let meets = |o: &Area| {
                area.x < o.x + o.w
                    && o.x < area.x + area.w
                    && area.y < o.y + o.h
                    && o.y < area.y + area.h
            };
            if !self.taken.iter().any(meets) {
                self.taken.push(area.grown(0.2));
                return Some(area);
            }
        }
        None
    }

    pub(super) fn words(&mut self, left: f64) {
        let (w, h) = (
            eighth(self.luck.random_range(3.0..6.0)),
            eighth(self.luck.random_range(0.6..1.1)),
        );
        let (w, h) = if self.luck.random_bool(0.15) {
            (h, w)
        } else {
            (w, h)
        };
        if let Some(area) = self.free(left, w, h) {
            self.put('t', "title", area, &json!({}));
        }
        let (w, h) = (
            eighth(self.luck.random_range(2.2..4.2)),
            eighth(self.luck.random_range(1.0..2.2)),
        );
        if let Some(area) = self.free(left, w, h) {
            self.put('j', "journal", area, &json!({}));
        }
    }

    pub(super) fn clusters(&mut self, left: f64, first: usize) {
        let photos = self.photos[first..].to_vec();
        if self.luck.random_bool(0.35) {
            let size = eighth(self.luck.random_range(0.6..1.25));
            if let Some(at) = self.free(left, size, size) {
                self.put('c', "cluster", at, &json!({"size": "small"}));
            }
        }
        for (id, area) in photos {
            if !self.luck.random_bool(0.45) {
                continue;
            }
            let size = eighth(self.luck.random_range(0.8..1.5));
            let (right, low) = (self.luck.random_bool(0.5), self.luck.random_bool(0.5));
            let x = if right { area.x + area.w } else { area.x } - size / 2.0;
            let y = if low { area.y + area.h } else { area.y } - size / 2.0;
            let at = Area {
                x,
                y,
                w: size,
                h: size,
            };
            self.put(
                'c',
                "cluster",
                at,
                &json!({"host": id, "size": if size > 1.1 { "medium" } else { "small" }}),
            );
        }
    }

    /// Tags, flags, labels, tickets and small rounds.
    pub(super) fn accents(&mut self, left: f64) {
        for _ in 0..self.luck.random_range(0..3) {
            let (w, h) = (
                eighth(self.luck.random_range(1.0..2.25)),
                eighth(self.luck.random_range(0.75..1.25)),
            );
            let Some(area) = self.free(left, w, h) else {
                return;
            };
            let outline = match self.luck.random_range(0..5) {
                0 => json!([[0.0, 0.0], [1.0, 0.0], [0.85, 0.5], [1.0, 1.0], [0.0, 1.0]]),
                1 => json!([
                    [0.15, 0.0],
                    [1.0, 0.0],
                    [1.0, 1.0],
                    [0.15, 1.0],
                    [0.0, 0.65],
                    [0.0, 0.35]
                ]),
                2 => json!([[0.5, 0.0], [1.0, 0.4], [0.5, 1.0], [0.0, 0.4]]),
                3 => {
                    let across = area.h;
                    let round = Area {
                        w: across,
                        h: across,
                        ..area
                    };
                    self.put('x', "accent", round, &json!({"shape": {"type": "ellipse"}}));
                    continue;
                }
                _ => json!([
                    [0.06, 0.0],
                    [0.94, 0.0],
                    [1.0, 0.1],
                    [1.0, 0.9],
                    [0.94, 1.0],
                    [0.06, 1.0],
                    [0.0, 0.9],
                    [0.0, 0.1]
                ]),
            };
            let mut tag = json!({"shape": {"type": "polygon", "points": outline}});
            let turn = self.turn();
            if turn != 0.0 {
                tag["turn"] = turn.into();
            }
            self.put('x', "accent", area, &tag);
        }
    }
}
