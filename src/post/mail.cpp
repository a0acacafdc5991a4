// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/mail.h"

#include "base/letters.h"

#include <gmime/gmime.h>

#include <algorithm>

#include <cstdint>
#include <memory>
#include <mutex>

namespace jg {

namespace {

void initOnce() {
    static std::once_flag once;
    std::call_once(once, [] { g_mime_init(); });
}

struct Unref {
    void operator()(void* p) const { g_object_unref(p); }
};
template <typename T>
using Owned = std::unique_ptr<T, Unref>;

bool plausible(const std::string& address) {
    const auto at = address.find('@');
    return at != std::string::npos && at > 0 && at + 1 < address.size() &&
           address.find_first_of(" \r\n<>") == std::string::npos;
}

GMimePart* attachmentPart(const Attachment& a) {
    const auto slash = a.type.find('/');
    GMimePart* part =
        g_mime_part_new_with_type(a.type.substr(0, slash).c_str(), a.type.substr(slash + 1).c_str());
    const Owned<GMimeStream> stream(g_mime_stream_mem_new_with_buffer(a.bytes.data(), a.bytes.size()));
    const Owned<GMimeDataWrapper> content(
        g_mime_data_wrapper_new_with_stream(stream.get(), GMIME_CONTENT_ENCODING_DEFAULT));
    g_mime_part_set_content(part, content.get());
    g_mime_part_set_content_encoding(part, GMIME_CONTENT_ENCODING_BASE64);
    g_mime_part_set_filename(part, a.name.c_str());
    return part;
}

/// Seven bits and short lines: a server need not take more.
GMimeTextPart* textPart(const char* subtype, const std::string& words) {
    GMimeTextPart* part = g_mime_text_part_new_with_subtype(subtype);
    g_mime_text_part_set_charset(part, "utf-8");
    g_mime_text_part_set_text(part, words.c_str());
    g_mime_part_set_content_encoding(reinterpret_cast<GMimePart*>(part),
                                     GMIME_CONTENT_ENCODING_QUOTEDPRINTABLE);
    return part;
}

std::string contentOf(GMimePart* part) {
    const Owned<GMimeStream> out(g_mime_stream_mem_new());
    g_mime_data_wrapper_write_to_stream(g_mime_part_get_content(part), out.get());
    const GByteArray* array = g_mime_stream_mem_get_byte_array(reinterpret_cast<GMimeStreamMem*>(out.get()));
    return {reinterpret_cast<const char*>(array->data), array->len};
}

} // namespace

Result<std::string> toBytes(const Mail& m) {
    initOnce();
    for (const auto& address : {m.fromAddress, m.toAddress})
        if (!plausible(address))
            return fail(ErrorCode::BadInput,
                        msg("mail.address-is-not-a-mail-address", {{"address", address}}));
    const Owned<GMimeMessage> message(g_mime_message_new(TRUE));
    g_mime_message_add_mailbox(message.get(), GMIME_ADDRESS_TYPE_FROM, m.fromName.c_str(),
                               m.fromAddress.c_str());
    g_mime_message_add_mailbox(message.get(), GMIME_ADDRESS_TYPE_TO, m.toName.c_str(), m.toAddress.c_str());
    g_mime_message_set_subject(message.get(), m.subject.c_str(), "utf-8");
    g_mime_message_set_message_id(message.get(), m.messageId.c_str());
    GDateTime* date = g_date_time_new_from_unix_utc(m.dateUnix);
    g_mime_message_set_date(message.get(), date);
    g_date_time_unref(date);
    const Owned<GMimeMultipart> mixed(g_mime_multipart_new_with_subtype("mixed"));
    const Owned<GMimeTextPart> text(textPart("plain", m.text));
    if (m.html.empty()) {
        g_mime_multipart_add(mixed.get(), reinterpret_cast<GMimeObject*>(text.get()));
    } else {
        // The best one last (RFC 2046, 5.1.4, from memory).
        const Owned<GMimeMultipart> either(g_mime_multipart_new_with_subtype("alternative"));
        const Owned<GMimeTextPart> html(textPart("html", m.html));
        g_mime_multipart_add(either.get(), reinterpret_cast<GMimeObject*>(text.get()));
        g_mime_multipart_add(either.get(), reinterpret_cast<GMimeObject*>(html.get()));
        g_mime_multipart_add(mixed.get(), reinterpret_cast<GMimeObject*>(either.get()));
    }
    for (const Attachment& a : m.attachments) {
        const Owned<GMimePart> part(attachmentPart(a));
        g_mime_multipart_add(mixed.get(), reinterpret_cast<GMimeObject*>(part.get()));
    }
    g_mime_message_set_mime_part(message.get(), reinterpret_cast<GMimeObject*>(mixed.get()));
    GMimeFormatOptions* format = g_mime_format_options_new();
    g_mime_format_options_set_newline_format(format, GMIME_NEWLINE_FORMAT_DOS);
    char* raw = g_mime_object_to_string(reinterpret_cast<GMimeObject*>(message.get()), format);
    std::string bytes(raw);
    g_free(raw);
    g_mime_format_options_free(format);
    return bytes;
}

namespace {

/// What the head says beside who, to whom and about what.
void readHead(GMimeMessage& message, ReadMail& read) {
    constexpr int kMostLines = 1000; // of a head: own choice
    if (const char* id = g_mime_message_get_message_id(&message)) read.messageId = id;
    GMimeHeaderList* head = g_mime_object_get_header_list(reinterpret_cast<GMimeObject*>(&message));
    const int lines = std::min(g_mime_header_list_get_count(head), kMostLines);
    for (int i = 0; i < lines; ++i) {
        GMimeHeader* line = g_mime_header_list_get_header_at(head, i);
        const std::string name = lowered(g_mime_header_get_name(line));
        const char* value = g_mime_header_get_value(line);
        if (name == "authentication-results" && value) read.checks.push_back(value);
        read.passedOn |= name == "resent-from" || name == "x-forwarded-for" || name == "x-forwarded-to";
    }
}

} // namespace

Result<ReadMail> readMail(const std::string& bytes) {
    initOnce();
    const Owned<GMimeStream> stream(g_mime_stream_mem_new_with_buffer(bytes.data(), bytes.size()));
    const Owned<GMimeParser> parser(g_mime_parser_new_with_stream(stream.get()));
    GMimeMessage* raw = g_mime_parser_construct_message(parser.get(), nullptr);
    if (!raw) return fail(ErrorCode::BadInput, msg("mail.this-is-not-a-mail"));
    const Owned<GMimeMessage> message(raw);
    ReadMail read;
    const auto list = [&](GMimeAddressType type) {
        char* text = internet_address_list_to_string(g_mime_message_get_addresses(raw, type), nullptr, FALSE);
        const std::string result = text ? text : "";
        g_free(text);
        return result;
    };
    read.from = list(GMIME_ADDRESS_TYPE_FROM);
    read.to = list(GMIME_ADDRESS_TYPE_TO);
    read.sender = list(GMIME_ADDRESS_TYPE_SENDER);
    read.replyTo = list(GMIME_ADDRESS_TYPE_REPLY_TO);
    readHead(*raw, read);
    if (const char* subject = g_mime_message_get_subject(raw)) read.subject = subject;
    if (const char* date = g_mime_object_get_header(reinterpret_cast<GMimeObject*>(raw), "Date"))
        read.date = date;
    GMimePartIter* it = g_mime_part_iter_new(g_mime_message_get_mime_part(raw));
    do {
        GMimeObject* object = g_mime_part_iter_get_current(it);
        read.passedOn |= GMIME_IS_MESSAGE_PART(object) != 0;
        if (!GMIME_IS_PART(object)) continue;
        auto* part = reinterpret_cast<GMimePart*>(object);
        const char* name = g_mime_part_get_filename(part);
        if (name || !GMIME_IS_TEXT_PART(object)) {
            char* type = g_mime_content_type_get_mime_type(g_mime_object_get_content_type(object));
            read.attachments.push_back({name ? name : "", type, contentOf(part)});
            g_free(type);
        } else if (GMIME_IS_TEXT_PART(object)) {
            char* text = g_mime_text_part_get_text(reinterpret_cast<GMimeTextPart*>(object));
            GMimeContentType* type = g_mime_object_get_content_type(object);
            if (text) (g_mime_content_type_is_type(type, "text", "html") ? read.html : read.text) += text;
            g_free(text);
        }
    } while (g_mime_part_iter_next(it));
    g_mime_part_iter_free(it);
    return read;
}

} // namespace jg
