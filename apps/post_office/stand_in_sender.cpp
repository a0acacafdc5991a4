// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/post_office/stand_in_sender.h"

#include "base/clock.h"
#include "base/date.h"
#include "base/file_store.h"
#include "post/mail.h"

namespace jg {

Status writeStandInMail(const StandInMail& order) {
    Mail mail;
    mail.fromName = order.fromName;
    mail.fromAddress = order.fromAddress;
    mail.toName = "Ilse Varnholt";
    mail.toAddress = "ilse@example.org";
    mail.subject = order.subject;
    mail.text = order.text;
    mail.dateUnix = SystemClock().nowUnix();
    mail.messageId = order.to.stem().string() + "@stand-in.invalid";
    for (const auto& film : order.films) {
        auto bytes = readFile(film);
        if (!bytes) return bytes.error();
        mail.attachments.push_back({film.filename().string(), "video/mp4", std::move(*bytes)});
    }
    auto bytes = toBytes(mail);
    if (!bytes) return bytes.error();
    FileStore files;
    return files.write(order.to, *bytes);
}

} // namespace jg
