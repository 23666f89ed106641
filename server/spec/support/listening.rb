# frozen_string_literal: true

require "puma"
require "puma/server"

# The application behind the web server it runs with, for what Rack::Test cannot show.
module Listening
  # @yieldparam port [Integer]
  def listening(threads: 2)
    Puma::Client.prepend(Server::HeadFirst)
    server = Puma::Server.new(Server::App, nil, min_threads: 1, max_threads: threads, log_writer: Puma::LogWriter.strings)
    port = server.add_tcp_listener("127.0.0.1", 0).addr[1]
    server.run
    yield port
  ensure
    server&.stop(true)
  end

  # @param lines [Array<String>] of the head
  # @return [Array(Integer, String)] status and body of what comes back while no body is sent
  def head(port, *lines)
    TCPSocket.open("127.0.0.1", port) do |socket|
      socket.write("#{lines.join("\r\n")}\r\n\r\n")
      answer = +""
      answer << socket.readpartial(65_536) while socket.wait_readable(5) && !socket.eof?
      [answer[/\AHTTP\/1.1 (\d+)/, 1].to_i, answer.split("\r\n\r\n", 2).last]
    end
  end
end
