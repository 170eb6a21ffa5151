//! What a picture is said to show.

use metrosk_core::document::Invalid;
use metrosk_core::length::{Length, Unit};
use metrosk_vision::{Quad, ReadRequest};
use serde::{Deserialize, Serialize};

/// What the picture shows.
#[derive(Debug, Serialize, Deserialize, utoipa::IntoParams, utoipa::ToSchema)]
#[into_params(parameter_in = Query)]
pub(crate) struct Shown {
    /// The page's width, as makers write lengths: `12`, `8 1/2`, `210 mm`.
    width: String,
    /// The page's height.
    height: String,
    /// 1, or 2 for a spread.
    #[param(minimum = 1, maximum = 2)]
    #[schema(minimum = 1, maximum = 2)]
    pages: Option<u32>,
    /// `in` or `mm`.
    unit: Option<String>,
    /// The sketch's name.
    name: Option<String>,
    /// Where the page lies in the picture, as eight numbers in its pixels: top left x, y, then top right, bottom right, bottom left.
    corners: Option<String>,
}

impl Shown {
    pub(crate) fn wanted(&self) -> Result<ReadRequest, Invalid> {
        let unit = match self.unit.as_deref() {
            None => Unit::Inch,
            Some(name) => Unit::from_name(name)
                .ok_or_else(|| Invalid::one("unit", format!("{name:?}"), "in or mm"))?,
        };
        let side = |path: &str, text: &str| {
            let length = Length::parse(text, unit)
                .map_err(|e| Invalid::one(path, e.to_string(), "a length of 1 to 48 in"))?;
            let fits = (1.0..=48.0).contains(&length.to_units(Unit::Inch));
            if fits {
                Ok(length.to_units(unit))
            } else {
                Err(Invalid::one(
                    path,
                    format!("{text:?}"),
                    "a length of 1 to 48 in",
                ))
            }
        };
        let pages = self.pages.unwrap_or(1);
        if pages != 1 && pages != 2 {
            return Err(Invalid::one("pages", pages.to_string(), "1 or 2"));
        }
        let name = self
            .name
            .as_deref()
            .map(str::trim)
            .filter(|n| !n.is_empty())
            .unwrap_or("From a picture");
        let name = name.chars().filter(|c| *c != '\0').take(120).collect();
        Ok(ReadRequest {
            page: (side("width", &self.width)?, side("height", &self.height)?),
            pages,
            unit,
            name,
            corners: self.quad()?,
        })
    }

    fn quad(&self) -> Result<Option<Quad>, Invalid> {
        let Some(text) = &self.corners else {
            return Ok(None);
        };
        let numbers: Option<Vec<f64>> = text.split(',').map(|n| n.trim().parse().ok()).collect();
        match numbers.as_deref() {
            Some([a, b, c, d, e, f, g, h]) => Ok(Some([[*a, *b], [*c, *d], [*e, *f], [*g, *h]])),
            _ => Err(Invalid::one(
                "corners",
                format!("{text:?}"),
                "eight numbers with commas between",
            )),
        }
    }
}
