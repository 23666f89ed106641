# frozen_string_literal: true

require "singleton"

# Listens to what the browser says of itself; a clean run says nothing.
class Console
  include Singleton

  SPOKEN = /"method":"(?:Runtime\.exceptionThrown|Log\.entryAdded|Runtime\.consoleAPICalled)"/

  def initialize
    @said = []
  end

  # What Cuprite hands a logger: one message of the protocol at a time.
  def puts(message)
    @said << message[0, 600] if message.match?(SPOKEN) && message.match?(/"(?:level|type)":"(?:error|warning|assert)"|exceptionThrown/)
  end

  # What is said in a sound run: answers that refuse something are shown on the page,
  # and a software graphics driver tells of its own speed.
  EXPECTED = /the server responded with a status of 4\d\d|GL Driver Message \(OpenGL, Performance/

  # @return [Array<String>] errors and warnings since the last look
  def complaints
    @said.slice!(0..).grep_v(EXPECTED)
  end
end
