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

  # @return [Array<String>] errors and warnings since the last look; answers that
  #   refuse something are the application's own and are shown on the page
  def complaints
    @said.slice!(0..).grep_v(/the server responded with a status of 4\d\d/)
  end
end
