# frozen_string_literal: true

module Mordant
  module Calibration
    module Line
      # The end of a line that asks.
      class Client
        PATIENCE = 5 # seconds for an answer
        LOOK = 0.5 # seconds, when it is looked whether there is anything

        # @return [Hash, nil] address, device and name of what listens there
        def self.about(address)
          client = new(address, patience: LOOK)
          {address:, device: client.device, name: client.name}
        rescue DeviceError
          nil
        ensure
          client&.close
        end

        attr_reader :device, :name

        # @param address [String]
        # @param device [String, nil] "screen" or "probe", which it ought to be
        # @param patience [Float] seconds for an answer
        # @raise [DeviceError, ParameterError]
        def initialize(address, device: nil, patience: PATIENCE)
          @address, @device, @patience = address, device, patience
          @socket = Socket.tcp(*Line.parse(address), connect_timeout: patience)
          version, said, @name = hello
          fault("speaks version #{version} of the protocol, not #{VERSION}") unless version == VERSION
          fault("a #{said} answers there, not a #{device}; give the other address") unless [nil, said].include?(device)
          @device = said
        rescue SystemCallError, SocketError
          @socket&.close
          fault("nothing answers at #{address}; start it, or give another address")
        end

        # @param line [String]
        # @return [String] what follows OK
        # @raise [Refused] of a probe that cannot tell a light; DeviceError of anything else
        def ask(line, patience: @patience)
          @socket.write("#{line}\n")
          answer = heard(patience)
          return answer.delete_prefix("OK").strip if answer.match?(/\AOK\b/)

          reason = answer[/\ANO (.+)/, 1] or fault("says #{answer.inspect}, which is none of the protocol")
          raise Refused.new(reason) if [Refused::TOO_DARK, Refused::SATURATED].include?(reason)

          fault("refuses #{line.split.first}: #{reason}")
        rescue SystemCallError, IOError
          fault("has stopped answering at #{@address}; start it again, and go on with the session")
        end

        # @return [Array<Float>] three finite numbers that are answered
        def numbers(line, patience: @patience)
          words = ask(line, patience:).split
          fault("answers #{words.join(" ").inspect}, not three numbers") unless words.size == 3 && words.all?(NUMBER)
          words.map(&:to_f)
        end

        def close = @socket&.close

        private

        # @return [Array(Integer, String, String)] version, device and name
        def hello
          answer = ask("HELLO mordant #{VERSION}")
          said, version, name = answer.match(/\A(screen|probe) (\d+)(?: (.{1,80}))?\z/)&.captures
          fault("answers HELLO with #{answer.inspect}; it is no screen and no probe") unless said
          [version.to_i, said, name || said]
        end

        def heard(patience)
          text = +""
          deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + patience
          until text.end_with?("\n")
            left = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
            fault("has not answered for #{patience.round(1)} s at #{@address}; look at it, and go on with the session") unless left.positive? && @socket.wait_readable(left)
            part = @socket.read_nonblock(LONGEST, exception: false)
            raise EOFError if part.nil?

            text << part unless part == :wait_readable
            fault("answers without end") if text.bytesize > LONGEST
          end
          text.force_encoding("UTF-8").scrub.strip
        end

        def fault(words) = raise(DeviceError.new(@device || "device", words))
      end
    end
  end
end
