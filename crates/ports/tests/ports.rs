//! The ports can be stood in for: a printer that keeps to the rules that every port has.

#![allow(clippy::unwrap_used, reason = "a test that can't go on fails")]

use async_trait::async_trait;
use metrosk_core::geometry::Size;
use metrosk_core::length::Length;
use metrosk_ports::{OrderId, PortError, Print, PrintOrder, Printer, Progress};
use std::sync::Mutex;
use std::sync::atomic::{AtomicBool, Ordering};

#[derive(Default)]
struct Told(Mutex<Vec<String>>, AtomicBool);

impl Progress for Told {
    fn tell(&self, stage: &str) {
        self.0.lock().unwrap().push(stage.to_owned());
    }
    fn is_cancelled(&self) -> bool {
        self.1.load(Ordering::Relaxed)
    }
}

#[derive(Default)]
struct OnPaper(Mutex<Vec<(OrderId, String)>>);

#[async_trait]
impl Printer for OnPaper {
    async fn papers(&self) -> Result<Vec<Size>, PortError> {
        Ok(vec![size(6, 4)])
    }

    async fn print(&self, order: &PrintOrder, progress: &dyn Progress) -> Result<(), PortError> {
        if self.0.lock().unwrap().iter().any(|(id, _)| *id == order.id) {
            return Ok(());
        }
        for print in &order.prints {
            if progress.is_cancelled() {
                return Err(PortError::Cancelled);
            }
            if !self.papers().await?.contains(&print.size) {
                return Err(PortError::Refused {
                    device: "the printer".to_owned(),
                    why: format!("{} is not on 6 × 4 paper", print.name),
                });
            }
            progress.tell(&print.name);
            let printed = (order.id.clone(), print.name.clone());
            self.0.lock().unwrap().push(printed);
        }
        Ok(())
    }
}

const fn size(w: i64, h: i64) -> Size {
    Size {
        w: Length::inches(w, 1),
        h: Length::inches(h, 1),
    }
}

fn order(id: &str, size: Size) -> PrintOrder {
    PrintOrder {
        id: OrderId(id.to_owned()),
        prints: vec![Print {
            name: "kite".to_owned(),
            size,
            copies: 1,
            margin: Length::ZERO,
            dots_an_inch: 300.0,
            jpeg: Vec::new(),
        }],
    }
}

#[tokio::test]
async fn an_order_is_carried_out_once_and_says_how_far_it_is() {
    let (printer, told) = (OnPaper::default(), Told::default());
    let by_any: &dyn Printer = &printer;
    by_any.print(&order("a", size(6, 4)), &told).await.unwrap();
    by_any.print(&order("a", size(6, 4)), &told).await.unwrap();
    assert_eq!(printer.0.lock().unwrap().len(), 1);
    assert_eq!(*told.0.lock().unwrap(), ["kite"]);
}

#[tokio::test]
async fn what_can_not_be_done_is_told_in_a_sentence() {
    let (printer, told) = (OnPaper::default(), Told::default());
    let refused = printer
        .print(&order("b", size(9, 9)), &told)
        .await
        .unwrap_err();
    assert_eq!(
        refused.to_string(),
        "the printer can't do this: kite is not on 6 × 4 paper"
    );
    told.1.store(true, Ordering::Relaxed);
    let cancelled = printer.print(&order("c", size(6, 4)), &told).await;
    assert_eq!(cancelled, Err(PortError::Cancelled));
}
