# frozen_string_literal: true

module Mordant
  module Calibration
    module Line
      # A stand-in at a loopback port.
      class Server
        # @param device [StandIn::Screen, StandIn::Probe]
        # @param port [Integer] 0: any
        # @raise [SystemCallError] of a port that is taken
        def initialize(device, port: 0)
          @device, @lock = device, Mutex.new
          @server = TCPServer.new("127.0.0.1", port)
        end

        def address = "127.0.0.1:#{@server.addr[1]}"

        def kind = @device.respond_to?(:show) ? "screen" : "probe"

        # Serves until it is stopped.
        def run
          loop { Thread.new(@server.accept) { |socket| serve(socket) } }
        rescue IOError
          nil # it was stopped
        end

        def stop = @server.close

        private

        def serve(socket)
          greeted = false
          while (line = socket.gets("\n", LONGEST)&.force_encoding("UTF-8"))
            answer = line.valid_encoding? ? answered(line.split, greeted) : "NO words: UTF-8 is spoken here"
            greeted ||= answer.start_with?("OK #{kind}")
            socket.write("#{answer}\n")
            break if answer == "OK bye"
          end
        rescue SystemCallError, IOError
          nil # the other end is gone
        ensure
          socket.close
        end

        def answered(words, greeted)
          verb, *rest = words
          return hello(rest) if verb == "HELLO"
          return "OK bye" if verb == "BYE"
          return "NO order: say HELLO first" unless greeted

          @lock.synchronize { act(verb, rest) }
        rescue Refused => e
          "NO #{e.reason}"
        rescue DeviceError => e
          "NO #{e.message}"
        end

        def hello(words)
          return "NO words: HELLO takes a name and a version" unless words.size == 2

          "OK #{kind} #{VERSION} #{@device.name}"
        end

        def act(verb, words)
          case [kind, verb]
          when %w[screen SHOW] then show(numbers(words, 3, 0.0..1.0))
          when %w[screen LIGHT] then (seconds = numbers(words, 1, 0.0..60.0)) ? said(@device.light(seconds.first)) : "NO words: LIGHT takes seconds, 0 to 60"
          when %w[probe READ] then said(@device.read)
          else "NO words: a #{kind} does not know #{verb.inspect}"
          end
        end

        def show(codes)
          return "NO words: SHOW takes three shares of the greatest code, 0 to 1" unless codes

          @device.show(codes)
          "OK"
        end

        def said(light) = "OK #{light.map { |part| part.round(6) }.join(" ")}"

        def numbers(words, count, range)
          values = words.map { |word| word.match?(NUMBER) ? word.to_f : nil }
          values if values.size == count && values.all? { |value| value && range.cover?(value) }
        end
      end
    end
  end
end
