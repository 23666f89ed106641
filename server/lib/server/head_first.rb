# frozen_string_literal: true

module Server
  # Has Puma ask Guard as soon as the head of a request is there. What is refused is answered
  # at once: Puma would read its body first, up to 96 MB of it, and lay it on disk.
  module HeadFirst
    private

    def setup_body
      return super unless Guard.refusal(@env)

      @read_header = false
      @env["HTTP_CONNECTION"] = "close" # what follows is the body
      @buffer = nil
      @body = Puma::Client::EmptyBody
      set_ready
      true
    end
  end
end
