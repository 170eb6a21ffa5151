//! Print sheets to look at and take away, orders to the printer, and the simulated printer's switches.

use super::job::{self, sheet_jpeg};
use super::store::{self as printing, PrinterRow};
use super::views::{PrintOrderView, PrintSheetsView, PrinterView, order};
use super::{Laid, PrintOptions, Sheet, laid};
use crate::auth::{Maker, Member};
use crate::compute::Work;
use crate::features::files::content as files;
use crate::features::jobs::store::{self as jobs, NewJob};
use crate::features::layouts::routes::exports::fitted_page;
use crate::http::error::{Failure, Problem};
use crate::http::extractors::{Body, Id, QueryParams, download};
use crate::http::idempotency::{Answer, Once, begin};
use crate::http::names::file_name;
use crate::state::App;
use axum::Json;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, StatusCode};
use axum::response::Response;
use metrosk_core::document::Invalid;
use metrosk_core::geometry::{Rect, Size};
use metrosk_core::length::Length;
use metrosk_sheet::{Picture, Pictures, PrintSheet, PrintedPhoto, print_sheets_pdf};
use serde_json::json;
use uuid::Uuid;

/// How many orders of a page are told.
const TOLD: i64 = 20;
/// So many sheets may be sent at once.
const MOST_SHEETS: usize = 60;

/// A page's name and its files on sheets.
async fn sheets_of(
    app: &App,
    member: &Member,
    id: Uuid,
    options: &PrintOptions,
) -> Result<(String, Laid), Failure> {
    let page = fitted_page(app, member, id).await?;
    Ok((page.name, laid(&page.plan, &page.layout, options)?))
}

/// The page's files on sheets of photo paper.
#[utoipa::path(
    get, operation_id = "print_sheets", path = "/api/pages/{id}/prints", tag = "photos", params(("id" = Uuid, Path), PrintOptions),
    responses(
        (status = 200, body = PrintSheetsView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn sheets(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(options): QueryParams<PrintOptions>,
) -> Result<Json<PrintSheetsView>, Failure> {
    let (_, laid) = sheets_of(&app, &member, id, &options).await?;
    Ok(Json((&laid).into()))
}

/// The same as a PDF at true scale.
#[utoipa::path(
    get, operation_id = "print_sheets_pdf", path = "/api/pages/{id}/prints.pdf", tag = "take away", params(("id" = Uuid, Path), PrintOptions),
    responses(
        (status = 200, body = Vec<u8>, content_type = "application/pdf"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn pdf(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
    QueryParams(options): QueryParams<PrintOptions>,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let (name, laid) = sheets_of(&app, &member, id, &options).await?;
    if laid.sheets.is_empty() {
        return Err(nothing_to_print());
    }
    let mut originals = Vec::new();
    for photo in laid.sheets.iter().flat_map(|s| &s.photos) {
        let bytes =
            crate::features::pictures::routes::original(&app, member.team(), photo.picture).await?;
        originals.push((photo.clone(), bytes));
    }
    let work = move |_: &metrosk_core::Cancel| {
        let mut pictures = Pictures::new();
        for (photo, bytes) in originals {
            let decoded = metrosk_vision::decode(&bytes).map_err(|e| e.to_string())?;
            let upright = super::SheetPhoto {
                turned: false,
                rect: upright(&photo),
                ..photo.clone()
            };
            let pixels = super::pixels::photo_pixels(&upright, &decoded.pixels);
            let jpeg = metrosk_vision::jpeg(&pixels, 92).map_err(|e| e.to_string())?;
            pictures.insert(photo.print, Picture { jpeg, turned: 0 });
        }
        let sheets: Vec<PrintSheet> = laid.sheets.iter().map(on_paper).collect();
        print_sheets_pdf(&sheets, &pictures).map_err(|e| e.to_string())
    };
    let made = app.compute.run(member.team(), Work::Picture, work).await?;
    Ok((
        download(
            "application/pdf",
            &file_name(&format!("{name} photos"), ".pdf"),
        ),
        made.map_err(Failure::Internal)?,
    ))
}

/// A photo's place as it stands upright.
fn upright(photo: &super::SheetPhoto) -> [i64; 4] {
    let [x, y, w, h] = photo.rect;
    if photo.turned {
        [x, y, h, w]
    } else {
        [x, y, w, h]
    }
}

/// A sheet for the PDF: its pictures are cropped already.
fn on_paper(sheet: &Sheet) -> PrintSheet {
    let length = Length::from_ticks;
    let photo = |p: &super::SheetPhoto| {
        let [x, y, w, h] = p.rect.map(length);
        PrintedPhoto {
            print: p.print.clone(),
            rect: Rect { x, y, w, h },
            turned: p.turned,
            shows: [0.0, 0.0, 1.0, 1.0],
        }
    };
    PrintSheet {
        size: Size {
            w: length(sheet.size.w),
            h: length(sheet.size.h),
        },
        photos: sheet.photos.iter().map(photo).collect(),
        bleed: length(sheet.bleed),
    }
}

fn nothing_to_print() -> Failure {
    Failure::Standing(
        "No file on this page fits a sheet of that paper. Prints on paper are there already; files can be printed.".to_owned(),
    )
}

/// One sheet as JPEG, 300 dots an inch; sheets count from 1.
#[utoipa::path(
    get, operation_id = "print_sheet_picture", path = "/api/pages/{id}/prints/{sheet}", tag = "take away",
    params(("id" = Uuid, Path), ("sheet" = u32, Path), PrintOptions),
    responses(
        (status = 200, body = Vec<u8>, content_type = "image/jpeg"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn sheet_picture(
    State(app): State<App>,
    member: Member,
    Path((id, sheet)): Path<(String, String)>,
    QueryParams(options): QueryParams<PrintOptions>,
) -> Result<(HeaderMap, Vec<u8>), Failure> {
    let id = Uuid::parse_str(&id).map_err(|_| Failure::Missing("page"))?;
    let (name, mut laid) = sheets_of(&app, &member, id, &options).await?;
    let at = sheet.parse::<usize>().ok().and_then(|n| n.checked_sub(1));
    let at = at
        .filter(|n| *n < laid.sheets.len())
        .ok_or(Failure::Missing("sheet"))?;
    let jpeg = sheet_jpeg(&app, member.team(), laid.sheets.swap_remove(at)).await?;
    let name = file_name(&format!("{name} photos {}", at + 1), ".jpg");
    Ok((download("image/jpeg", &name), jpeg))
}

/// Sends the page's files to the printer.
#[utoipa::path(
    post, operation_id = "send_to_printer", path = "/api/pages/{id}/print-orders", tag = "photos",
    params(("id" = Uuid, Path), ("Idempotency-Key" = Option<String>, Header)), request_body = PrintOptions,
    responses(
        (status = 202, body = PrintOrderView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
        (status = 409, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn send(
    State(app): State<App>,
    maker: Maker,
    once: Once,
    Id(id): Id,
    Body(options): Body<PrintOptions>,
) -> Result<Answer, Failure> {
    let (_, laid) = sheets_of(&app, &maker, id, &options).await?;
    if laid.sheets.is_empty() {
        return Err(nothing_to_print());
    }
    if laid.sheets.len() > MOST_SHEETS {
        let found = format!("{} sheets", laid.sheets.len());
        return Err(Invalid::one("paper", found, format!("up to {MOST_SHEETS} at once")).into());
    }
    let mut write = begin!(once, &app, &maker, "send photos to the printer");
    let order_id = Uuid::new_v4();
    let job = put_down(write.db(), &maker, order_id).await?;
    let ids = (order_id, id, job);
    printing::insert(
        write.db(),
        maker.team(),
        ids,
        &json!(laid.sheets),
        maker.name(),
    )
    .await?;
    let row = printing::find(write.db(), maker.team(), order_id).await?;
    let view = order(row.ok_or(Failure::Missing("order"))?)?;
    write.finish(StatusCode::ACCEPTED, &view).await
}

async fn put_down(
    db: &mut sqlx::PgConnection,
    maker: &Maker,
    order: Uuid,
) -> Result<Uuid, Failure> {
    let key = order.to_string();
    let new = NewJob {
        kind: job::KIND,
        key: Some(&key),
        input: &json!({"order": order}),
        asked_by: maker.name(),
    };
    Ok(jobs::insert(db, maker.team(), new).await?)
}

/// Goes on with an order that stopped: what is printed is not printed again.
#[utoipa::path(
    post, operation_id = "go_on_printing", path = "/api/print-orders/{id}/go-on", tag = "photos", params(("id" = Uuid, Path)),
    responses(
        (status = 202, body = PrintOrderView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn go_on(
    State(app): State<App>,
    maker: Maker,
    Id(id): Id,
) -> Result<(StatusCode, Json<PrintOrderView>), Failure> {
    let mut tx = app.pool.begin().await?;
    printing::find(&mut *tx, maker.team(), id)
        .await?
        .ok_or(Failure::Missing("order"))?;
    let job = put_down(&mut tx, &maker, id).await?;
    printing::go_on_with(&mut *tx, maker.team(), id, job).await?;
    let row = printing::find(&mut *tx, maker.team(), id).await?;
    tx.commit().await?;
    Ok((
        StatusCode::ACCEPTED,
        Json(order(row.ok_or(Failure::Missing("order"))?)?),
    ))
}

/// A page's orders, the newest first: which sheets are printed, and what stopped the others.
#[utoipa::path(
    get, operation_id = "print_orders", path = "/api/pages/{id}/print-orders", tag = "photos", params(("id" = Uuid, Path)),
    responses(
        (status = 200, body = Vec<PrintOrderView>),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn orders(
    State(app): State<App>,
    member: Member,
    Id(id): Id,
) -> Result<Json<Vec<PrintOrderView>>, Failure> {
    crate::features::pages::routes::find(&app, &member, id).await?;
    let rows = printing::of_page(&app.pool, member.team(), id, TOLD).await?;
    rows.into_iter()
        .map(order)
        .collect::<Result<_, _>>()
        .map(Json)
}

/// What the printer printed of a sheet.
#[utoipa::path(
    get, operation_id = "printed_sheet", path = "/api/print-orders/{id}/sheets/{sheet}", tag = "photos",
    params(("id" = Uuid, Path), ("sheet" = i32, Path)),
    responses(
        (status = 200, body = Vec<u8>, content_type = "image/jpeg"),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 404, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn printed(
    State(app): State<App>,
    member: Member,
    Path((id, sheet)): Path<(String, String)>,
) -> Result<Response, Failure> {
    let missing = || Failure::Missing("sheet");
    let id = Uuid::parse_str(&id).map_err(|_| missing())?;
    let sheet = sheet.parse().map_err(|_| missing())?;
    let file = printing::printed_file(&app.pool, member.team(), id, sheet)
        .await?
        .ok_or_else(missing)?;
    files::answer(&app, member.team(), &file).await
}

/// The simulated photo printer: what it has left.
#[utoipa::path(
    get, operation_id = "printer", path = "/api/printer", tag = "photos",
    responses((status = 200, body = PrinterView), (status = 401, body = Problem, content_type = "application/problem+json"))
)]
pub(crate) async fn printer(
    State(app): State<App>,
    member: Member,
) -> Result<Json<PrinterView>, Failure> {
    let mut tx = app.pool.begin().await?;
    let row = printing::printer(&mut tx, member.team()).await?;
    tx.commit().await?;
    Ok(Json(row.into()))
}

/// Fills it, lets it run out, or jams it.
#[utoipa::path(
    put, operation_id = "set_printer", path = "/api/printer", tag = "photos", request_body = PrinterView,
    responses(
        (status = 200, body = PrinterView),
        (status = 401, body = Problem, content_type = "application/problem+json"),
        (status = 403, body = Problem, content_type = "application/problem+json"),
        (status = 422, body = Problem, content_type = "application/problem+json"),
    )
)]
pub(crate) async fn set_printer(
    State(app): State<App>,
    maker: Maker,
    Body(to): Body<PrinterView>,
) -> Result<Json<PrinterView>, Failure> {
    let within = |name: &str, found: i32, most: i32| {
        let ok = (0..=most).contains(&found);
        ok.then_some(())
            .ok_or_else(|| Invalid::one(name, found.to_string(), format!("0 to {most}")))
    };
    within("paper", to.paper, 500)?;
    within("ink", to.ink, 100)?;
    let row = PrinterRow {
        paper: to.paper,
        ink: to.ink,
        jammed: to.jammed,
    };
    printing::set_printer(&app.pool, maker.team(), row).await?;
    Ok(Json(to))
}
